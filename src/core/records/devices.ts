/** What a paired device may do: all that the desk may, or carry out runs and read what that takes. */
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
