/** A short beep. Browsers allow sound after the first touch of the page; before that it stays silent. */
let context: AudioContext | null = null;

const BEEP = { hertz: 880, seconds: 0.18, loudness: 0.25 } as const;

export function beep(): void {
  if (typeof AudioContext === 'undefined') return;
  // a page that was reloaded and not touched yet may not sound, and asking for it is a complaint on the console
  if (!context && navigator.userActivation?.hasBeenActive === false) return;
  context ??= new AudioContext();
  if (context.state === 'suspended') void context.resume().catch(() => undefined);
  const tone = context.createOscillator();
  const volume = context.createGain();
  tone.frequency.value = BEEP.hertz;
  volume.gain.setValueAtTime(BEEP.loudness, context.currentTime);
  volume.gain.exponentialRampToValueAtTime(0.001, context.currentTime + BEEP.seconds);
  tone.connect(volume).connect(context.destination);
  tone.start();
  tone.stop(context.currentTime + BEEP.seconds);
}
