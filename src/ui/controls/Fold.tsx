'use client';

import ExpandMore from '@mui/icons-material/ExpandMore';
import Accordion from '@mui/material/Accordion';
import AccordionDetails from '@mui/material/AccordionDetails';
import AccordionSummary from '@mui/material/AccordionSummary';
import { useState, type ReactNode } from 'react';

interface FoldProps {
  summary: ReactNode;
  /** Whether it stands open at first; a change to true opens it. */
  open?: boolean;
  children: ReactNode;
}

/** A part that folds away under its summary. */
export function Fold({ summary, open = false, children }: FoldProps) {
  const [expanded, setExpanded] = useState(open);
  const [wasOpen, setWasOpen] = useState(open);
  if (open !== wasOpen) {
    setWasOpen(open);
    if (open) setExpanded(true);
  }
  return (
    <Accordion
      expanded={expanded}
      onChange={(_, next) => setExpanded(next)}
      slotProps={{ heading: { component: 'h3' } }}
    >
      <AccordionSummary expandIcon={<ExpandMore />}>{summary}</AccordionSummary>
      <AccordionDetails>{expanded && children}</AccordionDetails>
    </Accordion>
  );
}
