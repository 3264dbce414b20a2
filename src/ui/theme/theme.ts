'use client';

import { createTheme, type Shadows } from '@mui/material/styles';

export const SANS = "'Alegreya Sans', 'Trebuchet MS', sans-serif";
export const SERIF = "'Alegreya', Georgia, serif";

const ruled = {
  borderRadius: 0,
  '&::before': { borderBottomColor: 'var(--rule-strong)' },
  '&:hover:not(.Mui-disabled, .Mui-error)::before': { borderBottomColor: 'var(--ink)' },
  '&::after': { borderBottomColor: 'var(--focus)' },
} as const;

/** Sheets lie flat on the table: depth is drawn with lines (those that stand above have a shadow of their own, below). */
const flat = Array.from({ length: 25 }, () => 'none') as Shadows;

/** Parts of the library that are not used: the variables of their colours would be a third of every page's theme. */
const UNUSED = new Set([
  'Alert',
  'AppBar',
  'Avatar',
  'Chip',
  'FilledInput',
  'Slider',
  'SpeedDialAction',
  'StepConnector',
  'StepContent',
  'Switch',
  'overlays',
]);

/** Set once: type, spacing, density, shape and colour of every borrowed component. Colours come from tokens.css. */
export const theme = createTheme({
  cssVariables: {
    colorSchemeSelector: 'data-theme',
    shouldSkipGeneratingVar: (keys) => keys.some((key) => UNUSED.has(key)),
  },
  shadows: flat,
  colorSchemes: {
    light: {
      palette: {
        primary: { main: '#17201d', contrastText: '#f8f9f6' },
        error: { main: '#a1301a' },
        background: { default: '#eef0ec', paper: '#f8f9f6' },
        text: { primary: '#17201d', secondary: '#47544f' },
        divider: '#c3cac4',
      },
    },
    dark: {
      palette: {
        primary: { main: '#e8ede9', contrastText: '#0f1513' },
        error: { main: '#ff9479' },
        background: { default: '#0f1513', paper: '#161e1b' },
        text: { primary: '#e8ede9', secondary: '#a9b6b0' },
        divider: '#2c3834',
      },
    },
  },
  shape: { borderRadius: 3 },
  spacing: 8,
  typography: {
    fontFamily: SANS,
    fontSize: 15,
    htmlFontSize: 16,
    h1: { fontFamily: SERIF, fontWeight: 700, fontSize: '1.5rem', lineHeight: 1.15 },
    h2: { fontFamily: SERIF, fontWeight: 700, fontSize: '1.2rem', lineHeight: 1.2 },
    h3: { fontWeight: 700, fontSize: '0.95rem', lineHeight: 1.3 },
    body1: { fontSize: '1rem', lineHeight: 1.4 },
    body2: { fontSize: '0.95rem', lineHeight: 1.4 },
    button: { textTransform: 'none', fontWeight: 700, fontSize: '1rem' },
  },
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true, disableTouchRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, variant: 'outlined' },
      styleOverrides: {
        root: {
          padding: '4px 14px',
          minHeight: 36,
          minWidth: 0,
          '&.Mui-focusVisible': { outline: '2px solid var(--focus)', outlineOffset: 2 },
        },
        outlined: {
          borderColor: 'var(--ink)',
          color: 'var(--ink)',
          '&:hover': { background: 'var(--sheet)', borderColor: 'var(--ink)' },
        },
        contained: { background: 'var(--ink)', color: 'var(--paper)', '&:hover': { background: 'var(--ink-soft)' } },
        text: {
          color: 'var(--ink)',
          textDecoration: 'underline',
          textDecorationThickness: 1,
          textUnderlineOffset: 3,
          padding: '4px 6px',
        },
      },
    },
    MuiIconButton: {
      styleOverrides: {
        root: { color: 'var(--ink)', borderRadius: 3, '&.Mui-focusVisible': { outline: '2px solid var(--focus)' } },
      },
    },
    MuiTable: { defaultProps: { size: 'small' } },
    MuiTextField: {
      defaultProps: { variant: 'standard', fullWidth: true, slotProps: { inputLabel: { shrink: true } } },
    },
    MuiInput: {
      styleOverrides: {
        root: ruled,
        input: {
          padding: '2px 0 4px',
          fontSize: '1.05rem',
          fontWeight: 500,
          color: 'var(--ink)',
          '&::placeholder': { color: 'var(--ink-soft)', opacity: '1 !important', fontWeight: 400 },
        },
      },
    },
    MuiInputLabel: {
      styleOverrides: {
        root: {
          color: 'var(--ink-soft)',
          fontSize: '0.95rem',
          transform: 'none',
          position: 'static',
          whiteSpace: 'normal',
          lineHeight: 1.25,
          overflow: 'visible',
          '&.Mui-focused': { color: 'var(--ink)' },
        },
      },
    },
    MuiFormControl: {
      styleOverrides: {
        root: {
          '& .MuiInputLabel-root + .MuiInputBase-root, & .MuiInputLabel-root + .MuiPickersInputBase-root': {
            marginTop: 0,
          },
          // Dates and times stand on the same line as the fields beside them.
          '& .MuiPickersInputBase-root': { fontSize: '1.05rem', fontWeight: 500, color: 'var(--ink)' },
          '& .MuiPickersInputBase-root .MuiPickersSectionList-root': { padding: '2px 0 4px' },
          '& .MuiPickersInputBase-root .MuiIconButton-root': { padding: 4, marginBottom: 3 },
        },
      },
    },
    MuiFormHelperText: {
      styleOverrides: {
        root: {
          fontSize: '0.9rem',
          lineHeight: 1.25,
          color: 'var(--ink-soft)',
          marginTop: 2,
          '&.Mui-error': { color: 'var(--pencil)', fontWeight: 500 },
        },
      },
    },
    MuiInputAdornment: {
      styleOverrides: {
        root: { marginBottom: 3, '& .MuiTypography-root': { color: 'var(--ink-soft)', fontSize: '0.95rem' } },
      },
    },
    MuiSelect: {
      styleOverrides: {
        icon: { color: 'var(--ink)' },
        select: { fontWeight: 500, '&:focus': { background: 'none' }, whiteSpace: 'normal' },
      },
    },
    MuiDialog: {
      styleOverrides: {
        paper: {
          backgroundImage: 'none',
          background: 'var(--sheet)',
          border: '1px solid var(--ink)',
          boxShadow: '6px 8px 0 rgb(0 0 0 / 0.12)',
        },
      },
    },
    MuiDialogTitle: {
      styleOverrides: { root: { fontFamily: SERIF, fontWeight: 700, fontSize: '1.3rem', padding: '18px 24px 6px' } },
    },
    MuiPopover: {
      styleOverrides: {
        paper: {
          backgroundImage: 'none',
          background: 'var(--sheet)',
          border: '1px solid var(--ink)',
          boxShadow: '4px 5px 0 rgb(0 0 0 / 0.12)',
        },
      },
    },
    MuiToggleButtonGroup: { styleOverrides: { root: { verticalAlign: 'middle' } } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          textTransform: 'none',
          fontWeight: 500,
          fontSize: '0.95rem',
          lineHeight: 1.2,
          padding: '3px 10px',
          color: 'var(--ink)',
          borderColor: 'var(--rule-strong)',
          '&.Mui-selected, &.Mui-selected:hover': { background: 'var(--ink)', color: 'var(--paper)', fontWeight: 700 },
          '&.Mui-focusVisible': { outline: '2px solid var(--focus)', outlineOffset: 2 },
        },
      },
    },
    MuiTabs: {
      styleOverrides: {
        root: { minHeight: 0, borderBottom: '1px solid var(--rule-strong)' },
        indicator: { height: 3, background: 'var(--tint, var(--water))' },
      },
    },
    MuiTab: {
      styleOverrides: {
        root: {
          textTransform: 'none',
          fontSize: '1.05rem',
          fontWeight: 500,
          minHeight: 0,
          minWidth: 0,
          padding: '6px 2px 8px',
          marginRight: 24,
          color: 'var(--ink-soft)',
          '&.Mui-selected': { color: 'var(--ink)', fontWeight: 800 },
          '&.Mui-focusVisible': { outline: '2px solid var(--focus)', outlineOffset: -2 },
        },
      },
    },
    MuiAccordion: {
      defaultProps: { disableGutters: true, elevation: 0, square: true },
      styleOverrides: {
        root: { background: 'none', borderBottom: '1px solid var(--rule)', '&::before': { display: 'none' } },
        heading: { margin: 0, fontSize: '1rem', fontWeight: 400 },
      },
    },
    MuiAccordionSummary: {
      styleOverrides: {
        root: {
          padding: 0,
          minHeight: 36,
          fontWeight: 700,
          fontFamily: 'inherit',
          fontSize: '1rem',
          '&.Mui-focusVisible': { background: 'none', outline: '2px solid var(--focus)' },
        },
        content: { margin: '6px 0' },
      },
    },
    MuiAccordionDetails: { styleOverrides: { root: { padding: '2px 0 14px' } } },
    MuiListItem: { styleOverrides: { divider: { borderColor: 'var(--rule)' } } },
    MuiListItemButton: {
      styleOverrides: {
        root: {
          font: 'inherit',
          textAlign: 'left',
          padding: '6px 4px 7px 0',
          '&:hover': { background: 'var(--sheet)' },
          '&.Mui-selected, &.Mui-selected:hover': {
            background: 'none',
            fontWeight: 800,
            boxShadow: 'inset 3px 0 0 var(--tint, var(--water))',
            paddingLeft: 10,
          },
          '&.Mui-focusVisible': { background: 'none', outline: '2px solid var(--focus)', outlineOffset: -2 },
        },
      },
    },
    MuiCheckbox: {
      styleOverrides: {
        root: {
          color: 'var(--ink)',
          padding: 6,
          '&.Mui-checked': { color: 'var(--ink)' },
          '&.Mui-focusVisible': { outline: '2px solid var(--focus)' },
        },
      },
    },
    MuiRadio: {
      defaultProps: { size: 'small' },
      styleOverrides: {
        root: {
          color: 'var(--ink)',
          padding: 6,
          '&.Mui-checked': { color: 'var(--ink)' },
          '&.Mui-focusVisible': { outline: '2px solid var(--focus)' },
        },
      },
    },
    MuiFormControlLabel: { styleOverrides: { root: { marginLeft: -6 }, label: { fontSize: '1rem' } } },
    MuiFormLabel: { styleOverrides: { root: { color: 'var(--ink-soft)', '&.Mui-focused': { color: 'var(--ink)' } } } },
    MuiSnackbarContent: {
      styleOverrides: {
        root: {
          background: 'var(--sheet)',
          color: 'var(--ink)',
          fontSize: '1rem',
          fontWeight: 500,
          border: '1px solid var(--ink)',
          borderLeft: '4px solid var(--pencil)',
          boxShadow: '4px 5px 0 rgb(0 0 0 / 0.14)',
          maxWidth: 760,
          flexWrap: 'wrap',
        },
        message: { flex: '1 1 260px' },
        action: { gap: 8, marginRight: 0, paddingLeft: 8 },
      },
    },
    MuiLinearProgress: {
      styleOverrides: { root: { height: 6, background: 'var(--rule)' }, bar: { background: 'var(--ink)' } },
    },
    MuiSkeleton: {
      styleOverrides: { root: { background: 'var(--rule)', opacity: 0.55, transform: 'none', margin: '6px 0' } },
    },
    MuiMenu: {
      styleOverrides: {
        paper: { border: '1px solid var(--ink)', background: 'var(--sheet)', backgroundImage: 'none' },
      },
    },
    MuiMenuItem: { styleOverrides: { root: { minHeight: 36, fontSize: '1rem' } } },
    MuiTooltip: {
      styleOverrides: { tooltip: { background: 'var(--ink)', color: 'var(--paper)', fontSize: '0.9rem' } },
    },
    MuiTableCell: {
      styleOverrides: {
        root: { borderColor: 'var(--rule)', padding: '6px 10px 6px 0', fontSize: '1rem' },
        head: {
          color: 'var(--ink-soft)',
          fontWeight: 500,
          fontSize: '0.95rem',
          lineHeight: 1.2,
          verticalAlign: 'bottom',
        },
      },
    },
  },
});
