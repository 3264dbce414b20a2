'use client';

import { WATER_BUILDS } from '@/core/plan/builds';
import { PrintFrame } from '@/ui/print/PrintFrame';
import { HelpEntries } from './HelpEntries';
import { HELP, HELP_NAMES, type HelpPage } from './helpTexts';
import styles from './Help.module.css';

/** The ways of working, and what each page says, to print. */
export const Booklet = () => (
  <PrintFrame label="Booklet" back="/" backTo="All sets">
    {() => (
      <main className={styles.booklet}>
        <h1>Working with Aguada</h1>
        <p>
          Planning aids, not safety limits: the product’s own label, its safety data sheet and local rules come first.
        </p>
        {(Object.keys(HELP) as HelpPage[]).map((page) => (
          <section key={page}>
            <h2>{HELP_NAMES[page]}</h2>
            <HelpEntries entries={HELP[page]} />
          </section>
        ))}
        <section>
          <h2>Ways to build the water</h2>
          <HelpEntries
            entries={WATER_BUILDS.map(({ name, look, risk }) => ({ what: name, says: `${look}. To mind: ${risk}.` }))}
          />
        </section>
      </main>
    )}
  </PrintFrame>
);
