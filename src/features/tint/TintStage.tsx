'use client';
export function TintStage() { return null; }
