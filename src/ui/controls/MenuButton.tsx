'use client';

import KeyboardArrowDown from '@mui/icons-material/KeyboardArrowDown';
import Button, { type ButtonProps } from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useId, useState } from 'react';
import { flushSync } from 'react-dom';

import styles from './controls.module.css';

export interface MenuChoice {
  key: string;
  label: string;
  disabled?: boolean;
  onPick: () => void;
}

interface MenuButtonProps {
  label: string;
  /** What it is called where the words on it are not enough. */
  name?: string;
  choices: readonly MenuChoice[];
  size?: ButtonProps['size'];
  variant?: ButtonProps['variant'];
  disabled?: boolean;
}

/** A button that opens a list of things to do. Letters and arrows move in it; only Enter or a press does one. */
export function MenuButton({ label, name, choices, size = 'small', variant = 'outlined', disabled }: MenuButtonProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const id = useId();
  return (
    <>
      <Button
        id={id}
        size={size}
        variant={variant}
        disabled={disabled || choices.length === 0}
        aria-label={name}
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        endIcon={<KeyboardArrowDown />}
        onClick={(event) => setAnchor(event.currentTarget)}
        className={styles.own!}
      >
        {label}
      </Button>
      <Menu
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        slotProps={{ list: { 'aria-labelledby': id } }}
      >
        {choices.map((choice) => (
          <MenuItem
            key={choice.key}
            disabled={choice.disabled}
            onClick={() => {
              // Closed and the focus given back before it is done: what is done may send the focus on.
              flushSync(() => setAnchor(null));
              anchor?.focus();
              choice.onPick();
            }}
          >
            {choice.label}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
