import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';

/** Says that something could not be read, which is not the same as that there is none of it. */
export function NotRead({ what, again }: { what: string; again: () => void }) {
  return (
    <Alert
      severity="warning"
      variant="outlined"
      action={
        <Button size="small" variant="text" onClick={again}>
          Read it again
        </Button>
      }
    >
      {what}
    </Alert>
  );
}
