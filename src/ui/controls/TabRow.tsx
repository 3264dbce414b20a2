'use client';

import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Link from 'next/link';
import type { ReactNode } from 'react';

interface TabRowProps<T extends string> {
  label: string;
  value: T;
  tabs: readonly { value: T; label: ReactNode; href: string }[];
}

/** Parts of a stage, each at an address of its own. */
export function TabRow<T extends string>({ label, value, tabs }: TabRowProps<T>) {
  return (
    <nav aria-label={label} style={{ minWidth: 0, maxWidth: '100%' }}>
      <Tabs
        value={value}
        variant="scrollable"
        scrollButtons="auto"
        allowScrollButtonsMobile
        slotProps={{ list: { role: undefined } }}
      >
        {tabs.map((tab) => (
          <Tab
            key={tab.value}
            value={tab.value}
            label={tab.label}
            component={Link}
            href={tab.href}
            scroll={false}
            role={undefined}
            aria-selected={undefined}
            aria-current={tab.value === value ? 'page' : undefined}
            tabIndex={0}
          />
        ))}
      </Tabs>
    </nav>
  );
}
