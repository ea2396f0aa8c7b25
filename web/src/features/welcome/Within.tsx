import { useQuery } from "@tanstack/react-query";
import { me } from "../../api/queries";
import { Notice } from "../../ui/Notice";
import { useLeave } from "../../ui/useLeave";

/** An invitation was opened by somebody who is signed in: it makes an account, and they have one. */
export function Within() {
  const welcome = useQuery(me).data;
  const leave = useLeave();
  return (
    <Notice
      title="You are signed in"
      text={`This invitation makes an account, and ${welcome?.coach} has one in ${welcome?.club}. Leave first, and it opens.`}
    >
      <button type="button" className="act main" disabled={leave.isPending} onClick={() => leave.mutate()}>
        {leave.isPending ? "Leaving …" : "Leave, and open it"}
      </button>
    </Notice>
  );
}
