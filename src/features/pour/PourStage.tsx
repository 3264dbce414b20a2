'use client';
export function PourStage() { return null; }
