'use client';

import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { QRCodeSVG } from 'qrcode.react';
import { useEffect, useState } from 'react';
import { shortTime } from '@/core/time/dayNames';
import type { DeviceRole, PairedDevice } from '@/core/records/devices';
import { Toggles } from '@/ui/controls/Toggles';
import styles from './DevicesPanel.module.css';

/** What is known of other devices. */
interface Devices {
  addresses: string[];
  devices: PairedDevice[];
  pairing: { code: string; role: DeviceRole; secondsLeft: number } | null;
}

const ROLES = [
  { value: 'bench', label: 'bench only' },
  { value: 'everything', label: 'everything' },
] as const;
const ROLE_WORDS: Record<DeviceRole, string> = { bench: 'bench only', everything: 'everything' };

async function ask(asked?: object): Promise<Devices | string> {
  const response = await fetch('/api/devices', {
    ...(asked && { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(asked) }),
  }).catch(() => null);
  if (!response) return 'Aguada does not answer. Is it still running?';
  const body = (await response.json()) as Devices & { message: string };
  return response.ok ? body : body.message;
}

/** A tablet at the bench: where Aguada is on the network, the code that pairs one device, and which are paired. */
export function DevicesPanel() {
  const [known, setKnown] = useState<Devices | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [role, setRole] = useState<DeviceRole>('bench');
  const take = (answer: Devices | string): void => {
    if (typeof answer === 'string') setTrouble(answer);
    else {
      setTrouble(null);
      setKnown(answer);
    }
  };
  const pairing = known?.pairing ?? null;
  const waiting = pairing !== null;
  useEffect(() => {
    let current = true;
    const look = (): void => void ask().then((answer) => current && take(answer));
    look();
    if (!waiting) return () => void (current = false);
    // While a code is shown: who came in by it, and how long it still lives.
    const timer = setInterval(look, 1000);
    return () => {
      current = false;
      clearInterval(timer);
    };
  }, [waiting]);
  if (!known) return <p className={styles.teach}>{trouble ?? 'Looking…'}</p>;
  const [address] = known.addresses;
  return (
    <div className={styles.devices}>
      {address ? (
        <p className={styles.teach}>
          Aguada listens on this network at <strong className={styles.address}>{known.addresses.join(' or ')}</strong>.
          Everyone on the same network can reach the pairing page, and nothing behind it without a code. What goes
          between the devices is not encrypted: use a network whose people you trust.
        </p>
      ) : (
        <p className={styles.teach}>
          Aguada answers on this machine only. To have a tablet or phone at the bench, stop it and start it with{' '}
          <code>npm run demo -- --open</code>.
        </p>
      )}
      {address && (
        <div className={styles.actions}>
          <Toggles label="What the device may do" value={role} choices={ROLES} onChoose={setRole} />
          <Button variant="contained" onClick={() => void ask({ do: 'code', role }).then(take)}>
            {pairing ? 'Another code' : 'Pair a device'}
          </Button>
        </div>
      )}
      {address && pairing && (
        <div className={styles.pairing} role="status">
          <QRCodeSVG
            value={`${address}/pair?code=${pairing.code}`}
            size={168}
            marginSize={2}
            title={`Leads to ${address}/pair with the code`}
          />
          <div>
            <p className={styles.code} aria-label={`Code ${pairing.code.split('').join(' ')}`}>
              {pairing.code}
            </p>
            <p className={styles.teach}>
              {ROLE_WORDS[pairing.role]}, one device, {Math.ceil(pairing.secondsLeft / 60)} min left. Point the camera
              at the picture, or open {address} and type the code.
            </p>
          </div>
        </div>
      )}
      {trouble && (
        <p role="alert" className={styles.trouble}>
          {trouble}
        </p>
      )}
      {known.devices.length > 0 && (
        <Table aria-label="Paired devices" className={styles.table}>
          <TableBody>
            {known.devices.map(({ id, name, role: may, seenAt, shutOut }) => (
              <TableRow key={id}>
                <TableCell>{name}</TableCell>
                <TableCell>{ROLE_WORDS[may]}</TableCell>
                <TableCell>{shutOut ? 'shut out' : `last here ${shortTime(seenAt)}`}</TableCell>
                <TableCell align="right">
                  {!shutOut && (
                    <Button
                      size="small"
                      variant="text"
                      aria-label={`Shut out ${name}`}
                      onClick={() => void ask({ do: 'shut out', id }).then(take)}
                    >
                      Shut out
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </div>
  );
}
