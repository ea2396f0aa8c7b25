import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { me } from "../../api/queries";
import { Notice } from "../../ui/Notice";
import { AccountForm } from "./Account";
import { Door } from "./Door";

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
    <Door title={`Join ${invited.data.club}`} text={`You are invited as ${invited.data.role}.`}>
      <AccountForm
        name={invited.data.name}
        email={invited.data.email}
        word="Join"
        busy={join.isPending}
        error={join.error}
        onSubmit={(account) => join.mutate(account)}
      />
    </Door>
  );
}
