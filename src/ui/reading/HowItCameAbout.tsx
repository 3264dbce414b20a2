import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { Explanation } from '@/core/plan';
import { useOwnWords } from '../measure/UnitsContext';
import styles from './Reading.module.css';

interface HowItCameAboutProps {
  id: string;
  figure: string;
  explanation: Explanation;
  onClose: () => void;
}

/** Inputs, formula in words and assumptions of one figure. */
export function HowItCameAbout({ id, figure, explanation, onClose }: HowItCameAboutProps) {
  const own = useOwnWords();
  return (
    <div className={styles.how}>
      <h2 id={id} className={styles.howTitle}>
        {explanation.title}: {figure}
        {explanation.estimate && <span className={styles.estimate}>estimate</span>}
      </h2>
      <p className={styles.formula}>{own(explanation.formula)}</p>
      <Table size="small">
        <TableBody>
          {explanation.inputs.map(({ label, value }) => (
            <TableRow key={label}>
              <TableCell component="th" scope="row">
                {label}
              </TableCell>
              <TableCell>{own(value)}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {explanation.assumptions.length > 0 && (
        <ul className={styles.assumptions}>
          {explanation.assumptions.map((text) => (
            <li key={text}>{own(text)}</li>
          ))}
        </ul>
      )}
      <Button variant="text" size="small" onClick={onClose} autoFocus>
        Close
      </Button>
    </div>
  );
}
