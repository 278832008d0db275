import { createVuetify } from 'vuetify';
import { de, en } from 'vuetify/locale';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import 'vuetify/styles/core';
import './spacing.css';

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

const system = window.matchMedia('(prefers-color-scheme: dark)');

function chosenLook(): Look | null {
  const stored = localStorage.getItem(LOOK_KEY);
  return stored === 'day' || stored === 'night' ? stored : null;
}

/** What this device chose, else what its system asks for. */
const presentLook = (): Look => chosenLook() ?? (system.matches ? 'night' : 'day');

/** What lets the framework write its theme as a style element, and nobody else: made anew by the server for each page. */
const styleNonce = (): string | undefined => document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.nonce;

export const vuetify = createVuetify({
  locale: { locale: 'en', fallback: 'en', messages: { en, de } },
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: { defaultTheme: presentLook(), themes: { day, night }, cspNonce: styleNonce() },
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

function wear(look: Look): void {
  void vuetify.theme.change(look);
  document.documentElement.dataset.look = look;
}

/** Wears the look of this device, and follows its system as long as nobody chose one here. */
export function startLook(): void {
  wear(presentLook());
  system.addEventListener('change', () => wear(presentLook()));
}

/** Changes between day and night; this device keeps to it. */
export function switchLook(): void {
  const look = presentLook() === 'day' ? 'night' : 'day';
  localStorage.setItem(LOOK_KEY, look);
  wear(look);
}
