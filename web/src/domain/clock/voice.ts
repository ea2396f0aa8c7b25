/** Phrases of speech by the id of their file: fetched once, kept on this device, decoded for the audio clock. */

const SHELF = "yoisho-speech";

const AGAIN_MS = 1500;
const MOST_TRIES = 8;
/** The bytes of a phrase: from this device, else from the server; null where neither has it. */
async function bytesOf(address: string): Promise<ArrayBuffer | null> {
  const shelf = "caches" in globalThis ? await caches.open(SHELF).catch(() => null) : null;
  const kept = await shelf?.match(address);
  if (kept) return kept.arrayBuffer();
  try {
    let answer = await fetch(address);
    // The server is still making it.
    for (let tries = 0; answer.status === 404 && tries < MOST_TRIES; tries++) {
      await new Promise((later) => setTimeout(later, AGAIN_MS));
      answer = await fetch(address);
    }
    if (!answer.ok) return null;
    await shelf?.put(address, answer.clone());
    return await answer.arrayBuffer();
  } catch {
    return null;
  }
}

export class Voice {
  private bytes = new Map<string, ArrayBuffer>();
  private decoded = new Map<string, AudioBuffer>();

  /** Where phrases are asked for, before the id of each. */
  constructor(private readonly root = "/api/speech/") {}

  /** Fetches the phrases, a few at a time, so that they play without a network. */
  async fetch(phrases: readonly string[]): Promise<void> {
    const waiting = [...new Set(phrases)].filter((phrase) => !this.bytes.has(phrase));
    const worker = async () => {
      for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) {
        const found = await bytesOf(this.root + next);
        if (found) this.bytes.set(next, found);
      }
    };
    await Promise.all([worker(), worker(), worker(), worker()]);
  }

  /** Decodes what has been fetched; call it again after each fetch. */
  async decode(context: BaseAudioContext): Promise<void> {
    for (const [phrase, bytes] of this.bytes) {
      if (this.decoded.has(phrase)) continue;
      // Decoding takes the bytes away, so it gets a copy.
      const buffer = await context.decodeAudioData(bytes.slice(0)).catch(() => null);
      if (buffer) this.decoded.set(phrase, buffer);
    }
  }

  get(phrase: string): AudioBuffer | undefined {
    return this.decoded.get(phrase);
  }
}
