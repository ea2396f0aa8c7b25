import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { describe, expect, it } from "vitest";
import { askAnew } from "./askAnew";

describe("asking anew", () => {
  it("never leaves an answer from before the change standing, though it was still on its way", async () => {
    const client = new QueryClient();
    const answers: ((answer: string) => void)[] = [];
    const queryFn = () => new Promise<string>((resolve) => answers.push(resolve));
    const stop = new QueryObserver(client, { queryKey: ["log"], queryFn }).subscribe(() => {});
    const asked = askAnew(client, { queryKey: ["log"] });
    await expect.poll(() => answers.length).toBe(2);
    answers[1]?.("after");
    answers[0]?.("before");
    await asked;
    expect(client.getQueryData(["log"])).toBe("after");
    stop();
  });
});
