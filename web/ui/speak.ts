const KEPT_AT = 'decurio.spoken';

/** Whether the bench speaks, as chosen on this device. */
export const isSpoken = (): boolean => localStorage.getItem(KEPT_AT) === 'yes';

export const setSpoken = (spoken: boolean): void => {
  localStorage.setItem(KEPT_AT, spoken ? 'yes' : 'no');
  if (!spoken) window.speechSynthesis?.cancel();
};

/** Says it through the browser's own voice, where the bench speaks; what was being said before is cut short. */
export function speak(words: string): void {
  if (!isSpoken() || !('speechSynthesis' in window)) return;
  window.speechSynthesis.cancel();
  const utterance = new SpeechSynthesisUtterance(words);
  utterance.lang = 'en';
  window.speechSynthesis.speak(utterance);
}
