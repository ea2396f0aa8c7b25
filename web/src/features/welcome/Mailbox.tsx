import { useQuery } from "@tanstack/react-query";
import { api, need } from "../../api/client";
import { when } from "../../domain/time";
import { Notice } from "../../ui/Notice";

const LINK = /(https?:\/\/\S+)/;

/** What the demo would have mailed: it sends nothing. */
export function Mailbox() {
  const query = useQuery({ queryKey: ["mailbox"], queryFn: () => need(api.GET("/api/mailbox")), staleTime: 0 });
  if (!query.data) return <Notice asked={query} title="Opening the mailbox" />;
  if (!query.data.length) {
    return <Notice title="Nothing was mailed yet" text="Invite somebody by mail, or ask for a new password." />;
  }
  return (
    <main className="max-w-[760px] px-4 pt-[18px] pb-8 min-[900px]:px-6">
      <h1>Mailbox</h1>
      <p className="quiet pb-3">What the demo would have mailed. Nothing leaves this machine.</p>
      <ul>
        {query.data.map((mail) => (
          <li key={`${mail.sent_at} ${mail.to}`} className="ink-t py-3">
            <h2>{mail.subject}</h2>
            <p className="quiet pb-2">
              to {mail.to}, {when(mail.sent_at)}
            </p>
            <p className="break-words whitespace-pre-wrap">
              {mail.text.split(LINK).map((piece, index) =>
                LINK.test(piece) ? (
                  // biome-ignore lint/suspicious/noArrayIndexKey: the pieces of one text stay where they are
                  <a key={index} className="link" href={piece}>
                    {piece}
                  </a>
                ) : (
                  piece
                ),
              )}
            </p>
          </li>
        ))}
      </ul>
    </main>
  );
}
