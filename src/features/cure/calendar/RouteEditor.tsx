'use client';

import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import ArrowDownward from '@mui/icons-material/ArrowDownward';
import ArrowUpward from '@mui/icons-material/ArrowUpward';
import Delete from '@mui/icons-material/DeleteOutlined';
import { idleSteps, IN_ROUTES, usualRoute, routeStepSchema, type Route, type RouteStep } from '@/core/schedule/routes';
import { AFTER_THE_POUR, factsOfStep } from '@/core/schedule/stepKinds';
import type { CalendarBatch } from '@/core/schedule/workplace';
import { complaintAt } from '@/core/records/replaceAt';
import { MeasureField } from '@/ui/measure/MeasureField';
import { Tick } from '@/ui/controls/Tick';
import { WordField } from '@/ui/measure/WordField';
import { useDesk } from '../../desk/DeskContext';
import { newKey } from '@/ui/newKey';
import { BuiltWith, useChecks } from './BuiltWith';
import styles from './RouteEditor.module.css';

/** Steps whose minutes come from the plan of the layers. */
const FROM_THE_PLAN: ReadonlySet<RouteStep['kind']> = new Set(['pour', 'finish']);
/** Steps that come with each layer, wherever they stand in the list. */
const isWithLayers = ({ kind }: Pick<RouteStep, 'kind'>): boolean => IN_ROUTES[kind].place === 'beside each pour';

/** The steps that pieces of this set go through: which, in what order, how long. */
export function RouteEditor({ batches }: { batches: readonly CalendarBatch[] }) {
  const { desk, changeSet } = useDesk();
  const own = batches.find(({ setId }) => setId === desk.set.id);
  const usual = own ? usualRoute(own.facts, desk.shelf.settings.data.stepMinutes) : null;
  const route = desk.set.data.route ?? usual;
  const checks = useChecks(route ?? []);
  if (!route)
    return (
      <p className={styles.teach}>
        Plan a batch on the Pour stage first: what its water is made of and held by says which steps it needs.
      </p>
    );
  // Each edit is made to the newest route: quick presses one after another do not undo each other.
  const put = (make: (route: Route) => Route, label: string): void =>
    changeSet((set) => ({ ...set, route: make(set.route ?? route) }), label);
  const change = ({ id, name }: RouteStep, part: Partial<RouteStep>): void =>
    put(
      (newest) =>
        newest.map((other) => {
          if (other.id !== id) return other;
          const step = { ...other, ...part };
          for (const key of ['mayPause', 'outdoors', 'noisy'] as const) if (step[key] === false) delete step[key];
          return step;
        }),
      `Change ${name.toLowerCase()} in the route`,
    );
  const move = ({ id, name }: RouteStep, by: -1 | 1): void =>
    put((newest) => {
      const at = newest.findIndex((one) => one.id === id);
      const next = [...newest];
      next.splice(Math.max(0, at + by), 0, ...next.splice(at, 1));
      return next;
    }, `Move ${name.toLowerCase()} in the route`);
  const idle = idleSteps(desk.batches.flatMap(({ data }) => data.course ?? [])).flatMap((one) => {
    const step = route.find(({ id, on }) => on && id === one.step);
    return step ? [{ ...one, step }] : [];
  });
  return (
    <section aria-label="Steps of the route">
      <BuiltWith checks={checks} usual={route} />
      {idle.map(({ step, idle: times, done }) => (
        <p key={step.id} className={styles.idle} role="status">
          {`${step.name} made no difference, as you said, in ${times} of ${done} batches. `}
          <Button size="small" variant="outlined" onClick={() => change(step, { on: false })}>
            Leave it out from now on
          </Button>
        </p>
      ))}
      <p className={styles.teach}>
        What each batch of this set goes through. Minutes are typical until you say better; drying is at 20 °C and 50 %,
        the room does the rest. What needs an order is held to it: seal before dams and pour, dams before levelling,
        plants that wick after the water.
      </p>
      <div className={styles.scroll} tabIndex={0} role="group" aria-label="Steps">
        <Table size="small" className={styles.steps}>
          <TableHead>
            <TableRow>
              <TableCell>Step</TableCell>
              <TableCell>A batch takes</TableCell>
              <TableCell>Each piece</TableCell>
              <TableCell>Dries</TableCell>
              <TableCell>How</TableCell>
              <TableCell>Order</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {route.map((step, i) => {
              const why = orderWords(route, i);
              const planned = FROM_THE_PLAN.has(step.kind);
              return (
                <TableRow key={step.id}>
                  <TableCell component="th" scope="row">
                    <Tick label={step.name} checked={step.on} onChange={(on) => change(step, { on })} />
                    {step.kind === 'other' && (
                      <WordField label="Called" value={step.name} onCommit={(name) => change(step, { name })} />
                    )}
                    {step.on && why && <span className={styles.why}>{why}</span>}
                    {step.on &&
                      checks
                        .filter(({ at, sure }) => at === step.kind && sure !== 'worked')
                        .map(({ fight, material, words }) => (
                          <span key={`${fight} ${material}`} className={styles.why}>
                            {words}
                          </span>
                        ))}
                  </TableCell>
                  {!step.on ? (
                    <TableCell colSpan={3} className={styles.soft}>
                      left out
                    </TableCell>
                  ) : planned ? (
                    <TableCell colSpan={3} className={styles.soft}>
                      {step.kind === 'pour'
                        ? 'minutes and waits from the plan of its layers'
                        : 'minutes and waits from the water build'}
                    </TableCell>
                  ) : (
                    (['perBatchMinutes', 'perPieceMinutes', 'dryMinutes'] as const).map((key) => (
                      <TableCell key={key}>
                        {(key !== 'dryMinutes' || !isWithLayers(step)) && (
                          <MeasureField
                            bare
                            label={`${step.name}: ${key === 'perBatchMinutes' ? 'a batch takes' : key === 'perPieceMinutes' ? 'each piece' : 'dries'}`}
                            quantity="duration"
                            step={key === 'perPieceMinutes' ? 0.5 : 5}
                            value={step[key]}
                            validate={(value) => complaintAt(routeStepSchema, step, [key], value)}
                            onCommit={(value) => change(step, { [key]: value })}
                          />
                        )}
                      </TableCell>
                    ))
                  )}
                  <TableCell className={styles.how}>
                    {step.on && !planned && !isWithLayers(step) && (
                      <>
                        <Tick
                          label="may pause"
                          checked={step.mayPause ?? false}
                          onChange={(mayPause) => change(step, { mayPause })}
                        />
                        <Tick
                          label="outdoors"
                          checked={step.outdoors ?? false}
                          onChange={(outdoors) => change(step, { outdoors })}
                        />
                        <Tick
                          label="loud"
                          checked={step.noisy ?? false}
                          onChange={(noisy) => change(step, { noisy })}
                        />
                      </>
                    )}
                  </TableCell>
                  <TableCell className={styles.order}>
                    <IconButton
                      size="small"
                      aria-label={`${step.name}: sooner`}
                      disabled={i === 0}
                      onClick={() => move(step, -1)}
                    >
                      <ArrowUpward fontSize="small" />
                    </IconButton>
                    <IconButton
                      size="small"
                      aria-label={`${step.name}: later`}
                      disabled={i === route.length - 1}
                      onClick={() => move(step, 1)}
                    >
                      <ArrowDownward fontSize="small" />
                    </IconButton>
                    {step.kind === 'other' && (
                      <IconButton
                        size="small"
                        aria-label={`Remove ${step.name}`}
                        onClick={() =>
                          put(
                            (newest) => newest.filter(({ id }) => id !== step.id),
                            `Remove ${step.name.toLowerCase()} from the route`,
                          )
                        }
                      >
                        <Delete fontSize="small" />
                      </IconButton>
                    )}
                  </TableCell>
                </TableRow>
              );
            })}
          </TableBody>
        </Table>
      </div>
      <div className={styles.buttons}>
        <Button
          size="small"
          onClick={() =>
            put(
              (newest) => [
                ...newest,
                {
                  id: newKey(),
                  kind: 'other',
                  name: 'Another step',
                  on: true,
                  mayPause: true,
                  perBatchMinutes: 10,
                  perPieceMinutes: 0,
                  dryMinutes: 0,
                },
              ],
              'Add a step to the route',
            )
          }
        >
          Add a step
        </Button>
        {desk.set.data.route && (
          <Button size="small" onClick={() => changeSet(({ route: _, ...set }) => set, 'Take the usual route')}>
            Take the usual route
          </Button>
        )}
      </div>
    </section>
  );
}

/** What is wrong with where a step stands; nothing while its order is as the work needs it. */
function orderWords(route: Route, i: number): string | null {
  const { kind } = route[i]!;
  const late = factsOfStep(kind).before?.find((rule) =>
    route.slice(0, i).some((other) => other.on && other.kind === rule.kind),
  );
  if (late) return `Move it up: ${late.why}.`;
  const early = AFTER_THE_POUR.find((rule) => rule.kind === kind);
  return early && route.slice(i + 1).some((other) => other.on && other.kind === 'pour')
    ? `Move it down: ${early.why}.`
    : null;
}
