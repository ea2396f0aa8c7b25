/**
 * A heart-rate strap by Bluetooth, where the browser offers it: the standard Heart Rate service (0x180D) and its
 * Heart Rate Measurement characteristic (0x2A37), Bluetooth SIG, Heart Rate Service 1.0, from memory.
 */

import type { Source, Told } from "./source";

const SERVICE = "heart_rate";
const MEASUREMENT = "heart_rate_measurement";
const AGAIN_AFTER_MS = [500, 1000, 2000, 5000, 10_000];

const WIDE = 0x01;
const CONTACT_TOLD = 0x04;
const CONTACT = 0x02;

/** A measurement as it stands in the standard: heart rate [bpm], and whether the strap touches the skin (null: not told). */
export function measurementOf(bytes: DataView): { bpm: number; contact: boolean | null } {
  const flags = bytes.getUint8(0);
  return {
    bpm: flags & WIDE ? bytes.getUint16(1, true) : bytes.getUint8(1),
    contact: flags & CONTACT_TOLD ? (flags & CONTACT) !== 0 : null,
  };
}

export const offersBluetooth = (): boolean => typeof navigator !== "undefined" && "bluetooth" in navigator;

export class BluetoothStrap implements Source {
  private device: BluetoothDevice | null = null;
  private stopped = false;
  private tries = 0;

  constructor(private readonly bluetooth: Bluetooth = navigator.bluetooth) {}

  /** Raises what the browser raises where nobody picks a strap, or Bluetooth is off. */
  async start(told: Told): Promise<void> {
    this.stopped = false;
    told.state("looking");
    this.device ??= await this.bluetooth.requestDevice({ filters: [{ services: [SERVICE] }] });
    this.device.addEventListener("gattserverdisconnected", () => {
      told.state("lost");
      void this.again(told);
    });
    await this.listen(told);
  }

  stop(): void {
    this.stopped = true;
    this.device?.gatt?.disconnect();
  }

  private async listen(told: Told): Promise<void> {
    const server = await this.device?.gatt?.connect();
    const service = await server?.getPrimaryService(SERVICE);
    const measurement = await service?.getCharacteristic(MEASUREMENT);
    measurement?.addEventListener("characteristicvaluechanged", () => {
      if (!measurement.value) return;
      const { bpm, contact } = measurementOf(measurement.value);
      // Off the skin a strap tells nothing, or nonsense.
      if (contact === false || bpm === 0) return told.state("lost");
      told.state("on");
      told.heart?.(bpm);
    });
    await measurement?.startNotifications();
    this.tries = 0;
  }

  private async again(told: Told): Promise<void> {
    const wait = AGAIN_AFTER_MS[Math.min(this.tries, AGAIN_AFTER_MS.length - 1)];
    this.tries += 1;
    await new Promise((go) => setTimeout(go, wait));
    if (this.stopped) return;
    try {
      await this.listen(told);
    } catch {
      void this.again(told);
    }
  }
}
