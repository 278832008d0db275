import { createVuetify } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import 'vuetify/styles';

/** Ink is the only colour of controls: hues belong to liquids and to danger. */
const day = {
  dark: false,
  colors: {
    background: '#e6eae8',
    surface: '#f6f8f7',
    primary: '#1b2625',
    secondary: '#46534f',
    error: '#9c1f17',
    info: '#1b2625',
    success: '#1b2625',
    warning: '#9c1f17',
  },
};
const night = {
  dark: true,
  colors: {
    background: '#111716',
    surface: '#1a2221',
    primary: '#e9efed',
    secondary: '#a8b6b2',
    error: '#ff9a8f',
    info: '#e9efed',
    success: '#e9efed',
    warning: '#ff9a8f',
  },
};

const LOOK_KEY = 'lavacrum.look';
export type Look = 'day' | 'night';

/** What this device chose, else what its system asks for. */
export function initialLook(): Look {
  const stored = localStorage.getItem(LOOK_KEY);
  if (stored === 'day' || stored === 'night') return stored;
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
}

export function rememberLook(look: Look): void {
  localStorage.setItem(LOOK_KEY, look);
  document.documentElement.dataset.look = look;
}

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: { defaultTheme: initialLook(), themes: { day, night } },
  defaults: {
    VBtn: { rounded: 'sm', variant: 'flat', color: 'primary', ripple: false },
    VTextField: { variant: 'outlined', density: 'comfortable', color: 'primary', hideDetails: 'auto' },
    VTextarea: { variant: 'outlined', density: 'comfortable', color: 'primary', hideDetails: 'auto', rows: 2, autoGrow: true },
    VSelect: { variant: 'outlined', density: 'comfortable', color: 'primary', hideDetails: 'auto' },
    VCombobox: { variant: 'outlined', density: 'comfortable', color: 'primary', hideDetails: 'auto' },
    VAutocomplete: { variant: 'outlined', density: 'comfortable', color: 'primary', hideDetails: 'auto' },
    VCheckbox: { color: 'primary', hideDetails: 'auto' },
    VDialog: { maxWidth: 640 },
  },
});
