'use client';
export function LogStage() { return null; }
