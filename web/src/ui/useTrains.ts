import { useQuery } from "@tanstack/react-query";
import { me } from "../api/queries";

/** Whether the member may do everything of training; an assistant runs and logs. */
export const useTrains = (): boolean => useQuery(me).data?.role !== "assistant";
