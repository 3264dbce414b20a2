'use client';
export function CureStage() { return null; }
