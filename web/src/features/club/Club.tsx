import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { askAnew } from "../../api/askAnew";
import { api, need, type Schemas } from "../../api/client";
import { invitations as invitationsQuery, me, members as membersQuery } from "../../api/queries";
import { useClubSetting } from "../../api/useClubSetting";
import { when } from "../../domain/time";
import { faultBeside, faultOf, SelectField, TextField } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { Records } from "./Records";

type Role = Schemas["Role"];
type Member = Schemas["MemberOut"];

const ROLES: { id: Role; name: string; may: string }[] = [
  { id: "owner", name: "owner", may: "the club, its members, and everything of training" },
  { id: "coach", name: "coach", may: "everything of training, and what is known of people" },
  { id: "assistant", name: "assistant", may: "runs and logs; names, limits and stop signs, nothing else of health" },
];

/** The club's own page: who is in it, what they may, and how others come in. For its owner. */
export function Club() {
  const welcome = useQuery(me).data;
  const members = useQuery(membersQuery);
  if (members.error) return <Notice title="The club's page is its owner's" text={members.error.message} />;
  if (!members.data) return <Notice asked={members} title="Opening the club" />;
  return (
    <main className="max-w-[900px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <h1>{welcome?.club}</h1>
      <p className="quiet pb-3">Who is in the club, and what each may</p>
      <section aria-label="Members" className="ink-t pt-3 pb-5">
        <h2>Members</h2>
        <ul>
          {members.data.map((member) => (
            <Row key={member.id} member={member} />
          ))}
        </ul>
      </section>
      <Invitations />
      <Clock />
      <Records />
      <section aria-label="Roles" className="ink-t pt-3">
        <h2>What each may</h2>
        <dl>
          {ROLES.map((role) => (
            <div key={role.id} className="rule-t grid grid-cols-[110px_1fr] py-[5px]">
              <dt className="font-semibold">{role.name}</dt>
              <dd>{role.may}</dd>
            </div>
          ))}
        </dl>
      </section>
    </main>
  );
}

function Row({ member }: { member: Member }) {
  const client = useQueryClient();
  const save = useMutation({
    mutationFn: (body: Schemas["MemberIn"]) =>
      need(api.PUT("/api/members/{member_id}", { params: { path: { member_id: member.id } }, body })),
    onSuccess: () => askAnew(client, { queryKey: membersQuery.queryKey }),
  });
  return (
    <li className="rule-t flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <span className="min-w-[200px] flex-1">
        <b>{member.name}</b> {member.me && <span className="quiet">(you)</span>}
        <span className="quiet block text-[13px]">{member.email || "no address"}</span>
      </span>
      {!member.active && <span className="seal light">Let go</span>}
      <label className="label-text">
        <span className="sr-only">Role of {member.name}</span>
        <select
          className="field cursor-pointer"
          value={member.role}
          disabled={save.isPending}
          onChange={(event) => save.mutate({ role: event.target.value as Role, active: member.active })}
        >
          {ROLES.map((role) => (
            <option key={role.id} value={role.id}>
              {role.name}
            </option>
          ))}
        </select>
      </label>
      <button
        type="button"
        className="act"
        disabled={save.isPending || member.me}
        aria-label={`${member.active ? "Let go" : "Let in again"}: ${member.name}`}
        onClick={() => save.mutate({ role: member.role, active: !member.active })}
      >
        {member.active ? "Let go" : "Let in again"}
      </button>
      {save.error && (
        <p role="alert" className="basis-full">
          {save.error.message}
        </p>
      )}
    </li>
  );
}

function Invitations() {
  const client = useQueryClient();
  const query = useQuery(invitationsQuery);
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role>("coach");
  const [email, setEmail] = useState("");
  const refresh = () => askAnew(client, { queryKey: invitationsQuery.queryKey });
  const invite = useMutation({
    mutationFn: () => need(api.POST("/api/invitations", { body: { name, role, email: email || null } })),
    onSuccess: () => {
      setName("");
      setEmail("");
      return refresh();
    },
  });
  const takeBack = useMutation({
    mutationFn: (id: number) =>
      need(api.DELETE("/api/invitations/{invitation_id}", { params: { path: { invitation_id: id } } })),
    onSuccess: refresh,
  });
  function submit(event: FormEvent) {
    event.preventDefault();
    invite.mutate();
  }
  const open = (query.data ?? []).filter((each) => !each.used);
  const others = faultBeside(invite.error, ["name", "role", "email"]);
  return (
    <section aria-label="Invitations" className="ink-t pt-3 pb-5">
      <h2>Invite somebody</h2>
      <form onSubmit={submit} className="flex flex-wrap items-start gap-3 pt-2">
        <TextField
          label="Name"
          required
          maxLength={120}
          value={name}
          fault={faultOf(invite.error, "name")}
          onChange={(event) => setName(event.target.value)}
        />
        <SelectField label="As" value={role} options={ROLES} onChange={(id) => setRole(id as Role)} />
        <TextField
          label="E-mail address, if it is to be sent"
          type="email"
          maxLength={150}
          value={email}
          fault={faultOf(invite.error, "email")}
          onChange={(event) => setEmail(event.target.value)}
        />
        <button type="submit" className="act main mt-[20px]" disabled={invite.isPending}>
          {invite.isPending ? "One moment …" : email ? "Send a link" : "Make a link"}
        </button>
      </form>
      {others && <p role="alert">{others}</p>}
      {invite.data && (
        <p role="status" className="mt-3 border border-[var(--ink)] bg-[var(--sheet)] p-3">
          {invite.data.sent && `It was sent to ${invite.data.email}. `}
          {!invite.data.sent && invite.data.email && (
            <b>The mail to {invite.data.email} could not be sent: hand the link on yourself. </b>
          )}
          For <b>{invite.data.name}</b>, once, until {when(invite.data.until)}. It is shown only now:
          <input
            readOnly
            aria-label="Link of the invitation"
            className="field mt-2"
            value={`${window.location.origin}${invite.data.path}`}
            onFocus={(event) => event.target.select()}
          />
        </p>
      )}
      {open.length > 0 && (
        <ul aria-label="Open invitations" className="pt-3">
          {open.map((each) => (
            <li key={each.id} className="rule-t flex flex-wrap items-center gap-3 py-2">
              <span className="flex-1">
                {each.name}, {each.role}
                {each.email && `, ${each.email}`}{" "}
                <span className="quiet">{each.over ? "over" : `open until ${when(each.until)}`}</span>
              </span>
              <button
                type="button"
                className="act"
                aria-label={`Take back: ${each.name}`}
                disabled={takeBack.isPending}
                onClick={() => takeBack.mutate(each.id)}
              >
                Take back
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

const WEEKDAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
const ZONES = [...new Set(["UTC", ...Intl.supportedValuesOf("timeZone")])].map((zone) => ({ id: zone, name: zone }));

/** Whose days and hours count. */
function Clock() {
  const welcome = useQuery(me).data;
  const save = useClubSetting();
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return (
    <section aria-label="Clock" className="ink-t pt-3 pb-5">
      <h2>The club's clock</h2>
      <div className="flex flex-wrap items-start gap-4 pt-2">
        <SelectField
          label="Time zone"
          hint={welcome?.time_zone === here ? null : `This device is in ${here}.`}
          value={welcome?.time_zone ?? "UTC"}
          options={ZONES}
          fault={faultOf(save.error, "time_zone")}
          onChange={(time_zone) => save.mutate({ time_zone })}
        />
        <SelectField
          label="The week begins on"
          value={String(welcome?.first_weekday ?? 0)}
          options={WEEKDAYS.map((name, index) => ({ id: String(index), name }))}
          onChange={(day) => save.mutate({ first_weekday: Number(day) })}
        />
      </div>
      {save.error && <p role="alert">{save.error.message}</p>}
    </section>
  );
}
