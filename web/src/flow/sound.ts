import type { Band } from '@vectrum/core/scan';
import { soundIsOff, vibrationIsOff } from './device-choices';

type Note = readonly [hertz: number, startMs: number, lengthMs: number];

/** One short and high; two, falling; three quick; one long and low. */
const NOTES: Readonly<Record<Band, readonly Note[]>> = {
  accepted: [[1320, 0, 90]],
  'not-this': [
    [660, 0, 140],
    [440, 170, 200],
  ],
  'too-many': [
    [880, 0, 70],
    [880, 110, 70],
    [880, 220, 70],
  ],
  unknown: [[220, 0, 480]],
};
const RHYTHM: Readonly<Record<Band, number[]>> = {
  accepted: [40],
  'not-this': [120, 50, 180],
  'too-many': [60, 40, 60, 40, 60],
  unknown: [400],
};
const VOLUME = 0.12;

let audio: AudioContext | undefined;

/** Sounds and vibrates a band, as far as this device may. Browsers stay silent until the page has been touched; that is no failure. */
export function soundBand(band: Band): void {
  if (!vibrationIsOff()) navigator.vibrate?.(RHYTHM[band]);
  if (soundIsOff() || typeof AudioContext === 'undefined') return;
  audio ??= new AudioContext();
  for (const [hertz, start, length] of NOTES[band]) {
    const tone = audio.createOscillator();
    const gain = audio.createGain();
    tone.frequency.value = hertz;
    gain.gain.value = VOLUME;
    tone.connect(gain).connect(audio.destination);
    tone.start(audio.currentTime + start / 1000);
    tone.stop(audio.currentTime + (start + length) / 1000);
  }
}
