import { useMutation, useQueryClient } from "@tanstack/react-query";
import { askAnew } from "../../api/askAnew";
import { api, need, withFile } from "../../api/client";
import { FileButton } from "../../ui/FileButton";

const NAMES: Record<string, string> = { log: "log entries", sent_back: "sent back", combinations: "combinations" };

/** The club whole, out and in again, in open formats. */
export function Records() {
  const client = useQueryClient();
  const bring = useMutation({
    mutationFn: (file: File) =>
      need(
        api.POST("/api/club/records", {
          ...withFile(file),
        }),
      ),
    onSuccess: () => askAnew(client, {}),
  });
  const rows = Object.entries(bring.data?.rows ?? {}).filter(([, count]) => count > 0);
  return (
    <section aria-label="Records" className="ink-t pt-3 pb-5">
      <h2>Records</h2>
      <p className="quiet pb-2 text-[13px]">
        Everything the club keeps, as one archive of open files: JSON Lines with a schema each, and tables for a
        spreadsheet. It holds what is known of people's health. It can be brought into an empty club, here or elsewhere.
      </p>
      <div className="flex flex-wrap gap-2">
        <a className="act" href="/api/club/records" download>
          Export the club
        </a>
        <a className="act" href="/api/records/log" download>
          Log as CSV
        </a>
        <FileButton
          label="Archive of a club"
          accept=".zip,application/zip"
          word={bring.isPending ? "Bringing in …" : "Bring a club in"}
          disabled={bring.isPending}
          onFile={(file) => bring.mutate(file)}
        />
      </div>
      {bring.error && (
        <p role="alert" className="pt-2">
          {bring.error.message}
        </p>
      )}
      {rows.length > 0 && (
        <p role="status" className="pt-2">
          <span className="tick">✓</span> Brought in:{" "}
          {rows.map(([name, count]) => `${count} ${NAMES[name] ?? name}`).join(", ")}.
        </p>
      )}
    </section>
  );
}
