import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { askAnew } from "../../api/askAnew";
import { api, need, Refused } from "../../api/client";
import { sessions } from "../../api/queries";
import { once } from "../../domain/once";
import { FileButton } from "../../ui/FileButton";

/** What is wrong with the file, with the place of the fault in it. */
function inWords(error: Error): string {
  if (!(error instanceof Refused)) return error.message;
  const place = error.faults[0]?.ctx?.path as string | undefined;
  return place && !error.message.includes(place) ? `${place}: ${error.message}` : error.message;
}

/** Brings a session in from a file. */
export function Import() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const bring = useMutation({
    mutationFn: async (file: File) => {
      const text = await file.text();
      let document: unknown;
      try {
        document = JSON.parse(text);
      } catch (fault) {
        throw new Error(`${file.name} is not JSON: ${(fault as Error).message}. Choose a file that Export wrote.`);
      }
      const body = document as Record<string, never>;
      return once(["import", body], (headers) => need(api.POST("/api/sessions/import", { body, headers })));
    },
    onSuccess: (saved) => {
      void askAnew(client, { queryKey: sessions.queryKey });
      navigate(`/bench/${saved.id}`);
    },
  });
  return (
    <div className="max-w-[420px]">
      <FileButton
        label="Session file"
        accept="application/json,.json"
        word={bring.isPending ? "Bringing it in …" : "Import a file"}
        disabled={bring.isPending}
        onFile={(file) => bring.mutate(file)}
      />
      {bring.error && (
        <p role="alert" className="pt-2 text-[13px]">
          <span className="seal">Stopped</span> {inWords(bring.error)}
        </p>
      )}
    </div>
  );
}
