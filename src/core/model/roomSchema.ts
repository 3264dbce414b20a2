import { z } from 'zod';

const number = z.number({ error: 'Type a number' });

/** The room during pour and cure. */
export const roomSchema = z.object({
  temperatureC: number
    .min(5, 'Between 5 and 40 °C: outside that, resin does not cure as on its label')
    .max(40, 'Between 5 and 40 °C: outside that, resin does not cure as on its label'),
  /** Relative, 0 to 1. */
  humidity: number.min(0, 'Between 0 and 95 %').max(0.95, 'Between 0 and 95 %'),
});
export type Room = z.infer<typeof roomSchema>;
