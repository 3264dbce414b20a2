'use client';

import UploadFile from '@mui/icons-material/UploadFile';
import Button from '@mui/material/Button';
import { useRef } from 'react';

import styles from './controls.module.css';

interface FileButtonProps {
  label: string;
  /** What kind of file is asked for, for those who cannot see where the button stands. */
  name: string;
  accept: string;
  onFile: (file: File) => void;
  disabled?: boolean;
  size?: 'small' | 'medium';
}

/** A button that asks for a file. */
export function FileButton({ label, name, accept, onFile, disabled = false, size = 'small' }: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button
        size={size}
        startIcon={<UploadFile />}
        disabled={disabled}
        onClick={() => input.current?.click()}
        className={styles.own!}
      >
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={name}
        className="visually-hidden"
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen) onFile(chosen);
        }}
      />
    </>
  );
}
