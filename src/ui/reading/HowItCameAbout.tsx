import Button from '@mui/material/Button';
import type { Explanation } from '@/core/plan';
import styles from './Reading.module.css';

interface HowItCameAboutProps {
  id: string;
  figure: string;
  explanation: Explanation;
  onClose: () => void;
}

/** Inputs, formula in words and assumptions of one figure. */
export function HowItCameAbout({ id, figure, explanation, onClose }: HowItCameAboutProps) {
  return (
    <div className={styles.how}>
      <h2 id={id} className={styles.howTitle}>
        {explanation.title}: {figure}
        {explanation.estimate && <span className={styles.estimate}>estimate</span>}
      </h2>
      <p className={styles.formula}>{explanation.formula}</p>
      <table className={styles.inputs}>
        <tbody>
          {explanation.inputs.map(({ label, value }) => (
            <tr key={label}>
              <th scope="row">{label}</th>
              <td>{value}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {explanation.assumptions.length > 0 && (
        <ul className={styles.assumptions}>
          {explanation.assumptions.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
      <Button variant="text" size="small" onClick={onClose} autoFocus>
        Close
      </Button>
    </div>
  );
}
