const TICK_HZ = 880;
const TICK_S = 0.04;

let context: AudioContext | null = null;

/** A short tick, where this device has a voice for it. */
export function tick(): void {
  if (!('AudioContext' in window)) return;
  context ??= new AudioContext();
  const tone = context.createOscillator();
  const loudness = context.createGain();
  tone.frequency.value = TICK_HZ;
  loudness.gain.value = 0.08;
  tone.connect(loudness).connect(context.destination);
  tone.start();
  tone.stop(context.currentTime + TICK_S);
}
