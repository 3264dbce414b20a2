/** What a paired device may do: all that the desk may, or read and enter what was poured. */
export const DEVICE_ROLES = ['everything', 'bench'] as const;
export type DeviceRole = (typeof DEVICE_ROLES)[number];

/** A device that was paired. */
export interface PairedDevice {
  id: string;
  name: string;
  role: DeviceRole;
  pairedAt: string;
  seenAt: string;
  shutOut: boolean;
}

/** The edits that a device at the bench may make: it enters what was poured, and changes no design. */
export const BENCH_COMMANDS: ReadonlySet<string> = new Set(['pour']);
