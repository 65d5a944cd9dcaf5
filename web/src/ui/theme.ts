import { createVuetify, type ThemeDefinition } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import { PALETTE } from './palette';

function theme(mode: 'light' | 'dark'): ThemeDefinition {
  const p = PALETTE[mode];
  return {
    dark: mode === 'dark',
    colors: {
      ...p,
      background: p.paper,
      surface: p.sheet,
      primary: p.ink,
      'on-primary': p.paper,
      secondary: p.reference,
      error: p.brick,
      warning: p.warn,
      success: p.good,
      'on-background': p.ink,
      'on-surface': p.ink,
    },
    variables: { 'border-color': p.line, 'border-opacity': 1 },
  };
}

export const vuetify = createVuetify({
  theme: { defaultTheme: 'light', themes: { light: theme('light'), dark: theme('dark') } },
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  defaults: {
    VBtn: { rounded: 'sm', elevation: 0, class: 'kv-btn', ripple: false },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VTextarea: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VAutocomplete: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VCombobox: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VFileInput: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VCheckbox: { density: 'compact', hideDetails: true, color: 'primary' },
    VSwitch: { density: 'compact', hideDetails: true, color: 'primary', inset: true },
    VSlider: { density: 'compact', hideDetails: true, color: 'primary' },
    VDialog: { maxWidth: 560 },
    VCard: { rounded: 'sm', elevation: 0, border: true },
  },
});
