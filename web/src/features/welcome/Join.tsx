import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { me } from "../../api/queries";
import { Notice } from "../../ui/Notice";
import { AccountForm } from "./Account";

/** An invitation is answered: an account in the club it leads to. */
export function Join() {
  const code = useParams().code ?? "";
  const client = useQueryClient();
  const navigate = useNavigate();
  const path = { code };
  const invited = useQuery({
    queryKey: ["join", code],
    queryFn: () => need(api.GET("/api/join/{code}", { params: { path } })),
  });
  const join = useMutation({
    mutationFn: (body: Schemas["Account"]) => need(api.POST("/api/join/{code}", { params: { path }, body })),
    onSuccess: async (welcome) => {
      await navigate("/", { replace: true });
      client.setQueryData(me.queryKey, welcome);
    },
  });
  if (invited.error) {
    return (
      <Notice title="This invitation opens nothing" text={invited.error.message}>
        <button type="button" className="act" onClick={() => navigate("/", { replace: true })}>
          To the door
        </button>
      </Notice>
    );
  }
  if (!invited.data) return <Notice asked={invited} title="Opening the invitation" />;
  return (
    <main className="mx-auto grid min-h-dvh max-w-[420px] content-center px-4 py-10">
      <img src="/icon.svg" width={56} height={56} alt="" />
      <h1 className="mt-5">Join {invited.data.club}</h1>
      <p className="quiet">You are invited as {invited.data.role}.</p>
      <AccountForm
        name={invited.data.name}
        word="Join"
        busy={join.isPending}
        error={join.error}
        onSubmit={(account) => join.mutate(account)}
      />
    </main>
  );
}
