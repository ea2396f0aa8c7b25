import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { onChange, waiting } from "./outbox";
import type { Waiting } from "./store";

/** What waits on this device to be sent; the log is asked for anew when something has gone. */
export function useOutbox(): Waiting[] {
  const client = useQueryClient();
  const [items, setItems] = useState<Waiting[]>([]);
  useEffect(() => {
    const look = () =>
      void waiting()
        .then((found) => {
          setItems((before) => {
            if (found.length < before.length) void client.invalidateQueries({ queryKey: ["log"] });
            return found;
          });
        })
        .catch(() => {});
    look();
    return onChange(look);
  }, [client]);
  return items;
}
