'use client';

import { useEffect, useState, useSyncExternalStore } from 'react';
import type { Reading } from '@/core/model/readingSchema';
import { SILENT_MS, Stillness, type ScaleLook } from '@/core/run/stillness';
import type { LiveMessage } from '@/core/run/views';
import { scaleInstrument, SimulatedScale } from '@/devices/scale';

/** Where readings come from: nobody reads for us, a stand-in, or lines of whatever is on the bench. */
export const SCALE_SOURCES = ['none', 'simulated', 'line'] as const;
export type ScaleSource = (typeof SCALE_SOURCES)[number];

export interface ScaleNow extends ScaleLook {
  /** When it was heard, on a clock that only goes on. */
  heard: number;
}

const SEND_MS = 200;

/** What the scale on the bench shows in this window. It tells only when a reading comes: the page around it stands still. */
export class ScaleWatch {
  #now: ScaleNow | null = null;
  #trouble: string | null = null;
  #stillness: Stillness;
  #listeners = new Set<() => void>();
  readonly simulated: SimulatedScale;

  constructor(stepGrams: number, seed: number) {
    this.#stillness = new Stillness(stepGrams);
    this.simulated = new SimulatedScale(
      { stepGrams, noiseSteps: 0.35, driftGramsPerMinute: 0.02, settleSeconds: 0.35 },
      seed,
    );
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => void this.#listeners.delete(listener);
  };
  get now(): ScaleNow | null {
    return this.#now;
  }
  get trouble(): string | null {
    return this.#trouble;
  }

  take(reading: Reading, trouble: string | null): void {
    if (reading.device !== 'scale') return;
    const heard = performance.now();
    const look = this.#stillness.take(reading.grams, heard);
    this.#now = { ...look, heard };
    this.#trouble = look.jumped
      ? 'The scale jumped: was it knocked, or something put on it?'
      : (trouble ?? (look.still ? null : this.#trouble));
    this.#tell();
  }

  say(trouble: string): void {
    this.#trouble = trouble;
    this.#tell();
  }

  /** Nothing is heard any more: what it showed last is not shown on. */
  forget(): void {
    this.#now = null;
    this.#tell();
  }

  #tell(): void {
    for (const listener of this.#listeners) listener();
  }
}

/** Connects a watch to its source. What a stand-in shows is sent like the lines of a real one, so that other windows see it. */
export function useScaleSource(watch: ScaleWatch, source: ScaleSource, speed: number, window: string): void {
  useEffect(() => {
    if (source !== 'simulated') return;
    let waiting: Reading[] = [];
    const send = setInterval(() => {
      if (waiting.length === 0) return;
      const lines = waiting.map(
        (reading) => reading.device === 'scale' && { device: 'scale', value: reading.grams, unit: 'g' },
      );
      waiting = [];
      void fetch('/api/readings', {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-window': window },
        body: JSON.stringify(lines),
      }).catch(() => undefined);
    }, SEND_MS);
    const stop = scaleInstrument(watch.simulated, () => performance.now(), speed).listen(({ reading, trouble }) => {
      if (!reading) return;
      watch.take(reading, trouble);
      waiting.push(reading);
    });
    return () => {
      stop();
      clearInterval(send);
      watch.forget();
    };
  }, [watch, source, speed, window]);
  // A scale that has stopped says so by saying nothing.
  useEffect(() => {
    if (source !== 'line') return;
    const timer = setInterval(() => {
      const { now } = watch;
      if (now && performance.now() - now.heard > SILENT_MS) {
        watch.forget();
        watch.say('The scale has stopped. Type what it shows, or go on by hand.');
      }
    }, 500);
    return () => clearInterval(timer);
  }, [watch, source]);
}

/** What a message of the server means for the scale of this window. */
export function hearScale(watch: ScaleWatch, source: ScaleSource, window: string, message: LiveMessage): void {
  if (source !== 'line') return;
  if (message.type === 'reading' && message.from !== window) watch.take(message.reading, message.trouble);
  if (message.type === 'trouble' && message.from !== window) watch.say(message.trouble);
}

export const useScaleNow = (watch: ScaleWatch): ScaleNow | null =>
  useSyncExternalStore(
    watch.subscribe,
    () => watch.now,
    () => null,
  );

export const useScaleTrouble = (watch: ScaleWatch): string | null =>
  useSyncExternalStore(
    watch.subscribe,
    () => watch.trouble,
    () => null,
  );

export const useWatch = (stepGrams: number, seed: number): ScaleWatch =>
  useState(() => new ScaleWatch(stepGrams, seed))[0];
