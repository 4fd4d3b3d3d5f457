/** Languages in which a rider card is printed. */
export const LANGUAGES = { en: 'English', de: 'Deutsch', fr: 'Français', es: 'Español' } as const;
export type Language = keyof typeof LANGUAGES;
export const LANGUAGE_CODES = Object.keys(LANGUAGES) as readonly Language[];

type Said = Readonly<Record<Language, string>>;

/** Every sentence of a rider card, once; `{name}` is filled in. One row, four languages. */
export const RIDER_SENTENCES = {
  titleBike: {
    en: 'Your bike and its display',
    de: 'Ihr Rad und sein Display',
    fr: 'Votre vélo et son afficheur',
    es: 'Su bicicleta y su pantalla',
  },
  titleScooter: {
    en: 'Your scooter and its display',
    de: 'Ihr Roller und sein Display',
    fr: 'Votre trottinette et son afficheur',
    es: 'Su patinete y su pantalla',
  },
  onOff: { en: 'On and off', de: 'Ein und aus', fr: 'Marche et arrêt', es: 'Encender y apagar' },
  onKey: {
    en: 'Turn the key on the pack, then {use} until the glass lights.',
    de: 'Schlüssel am Akku drehen, dann {use}, bis die Anzeige leuchtet.',
    fr: 'Tournez la clé, puis {use} jusqu’à ce que l’afficheur s’allume.',
    es: 'Gire la llave y luego {use} hasta que se encienda la pantalla.',
  },
  onPack: {
    en: 'Switch the pack on, then {use} until the glass lights.',
    de: 'Akku einschalten, dann {use}, bis die Anzeige leuchtet.',
    fr: 'Allumez la batterie, puis {use} jusqu’à ce que l’afficheur s’allume.',
    es: 'Encienda la batería y luego {use} hasta que se encienda la pantalla.',
  },
  onKeyAlone: {
    en: 'Turn the key on the pack: the glass lights.',
    de: 'Schlüssel am Akku drehen: die Anzeige leuchtet.',
    fr: 'Tournez la clé : l’afficheur s’allume.',
    es: 'Gire la llave: la pantalla se enciende.',
  },
  onPackAlone: {
    en: 'Switch the pack on: the glass lights.',
    de: 'Akku einschalten: die Anzeige leuchtet.',
    fr: 'Allumez la batterie : l’afficheur s’allume.',
    es: 'Encienda la batería: la pantalla se enciende.',
  },
  offAlone: {
    en: 'Off: as it was switched on.',
    de: 'Aus: wie es eingeschaltet wurde.',
    fr: 'Arrêt : de la même façon.',
    es: 'Apagar: del mismo modo.',
  },
  offUse: { en: 'Off: {use}.', de: 'Aus: {use}.', fr: 'Arrêt : {use}.', es: 'Apagar: {use}.' },
  hold: {
    en: 'hold {keys} for {s} s',
    de: '{keys} {s} s halten',
    fr: 'maintenez {keys} {s} s',
    es: 'mantenga {keys} {s} s',
  },
  tap: { en: 'press {keys}', de: '{keys} drücken', fr: 'appuyez sur {keys}', es: 'pulse {keys}' },
  and: { en: ' and ', de: ' und ', fr: ' et ', es: ' y ' },
  levels: {
    en: 'Levels {from} to {to}',
    de: 'Stufen {from} bis {to}',
    fr: 'Niveaux {from} à {to}',
    es: 'Niveles {from} a {to}',
  },
  levelsDo: {
    en: '{up} and {down} choose how much it helps.',
    de: '{up} und {down} wählen, wie viel es hilft.',
    fr: '{up} et {down} règlent l’assistance.',
    es: '{up} y {down} eligen cuánto ayuda.',
  },
  levelZero: { en: 'At 0 it does not.', de: 'Bei 0 hilft es nicht.', fr: 'À 0, aucune aide.', es: 'En 0 no ayuda.' },
  modes: { en: 'Modes', de: 'Fahrmodi', fr: 'Modes', es: 'Modos' },
  modeChange: { en: 'Change: {use}.', de: 'Wechseln: {use}.', fr: 'Changer : {use}.', es: 'Cambiar: {use}.' },
  modeTo: {
    en: '{mode} to {speed}',
    de: '{mode} bis {speed}',
    fr: '{mode} jusqu’à {speed}',
    es: '{mode} hasta {speed}',
  },
  helpsTo: { en: 'It helps to', de: 'Hilft bis', fr: 'Aide jusqu’à', es: 'Ayuda hasta' },
  helpsPedal: {
    en: '{speed}, and only while you pedal.',
    de: '{speed}, und nur solange Sie treten.',
    fr: '{speed}, et seulement quand vous pédalez.',
    es: '{speed}, y solo mientras pedalea.',
  },
  throttle: { en: 'Throttle', de: 'Gasgriff', fr: 'Accélérateur', es: 'Acelerador' },
  throttleNone: { en: 'There is none.', de: 'Gibt es nicht.', fr: 'Il n’y en a pas.', es: 'No hay.' },
  throttleDead: {
    en: 'Switched off. It does nothing.',
    de: 'Abgeschaltet. Er tut nichts.',
    fr: 'Désactivé. Il ne fait rien.',
    es: 'Desactivado. No hace nada.',
  },
  throttleStanding: {
    en: 'It drives from standing still, to {speed}. Open it gently.',
    de: 'Treibt aus dem Stand an, bis {speed}. Sanft öffnen.',
    fr: 'Il entraîne dès l’arrêt, jusqu’à {speed}. Ouvrez doucement.',
    es: 'Mueve desde parado, hasta {speed}. Ábralo suavemente.',
  },
  throttleRolling: {
    en: 'It drives once you roll, to {speed}. Push off first.',
    de: 'Treibt erst beim Rollen an, bis {speed}. Erst abstoßen.',
    fr: 'Il entraîne une fois en mouvement, jusqu’à {speed}. Poussez d’abord.',
    es: 'Mueve cuando ya rueda, hasta {speed}. Impúlsese primero.',
  },
  throttlePedalling: {
    en: 'It drives once you pedal, to {speed}.',
    de: 'Treibt erst beim Treten an, bis {speed}.',
    fr: 'Il entraîne quand vous pédalez, jusqu’à {speed}.',
    es: 'Mueve cuando pedalea, hasta {speed}.',
  },
  walk: { en: 'Walk assist', de: 'Schiebehilfe', fr: 'Aide à la marche', es: 'Ayuda al caminar' },
  walkOff: { en: 'Switched off.', de: 'Abgeschaltet.', fr: 'Désactivée.', es: 'Desactivada.' },
  walkOn: {
    en: '{use}; at most {speed}. Let go and it stops.',
    de: '{use}; höchstens {speed}. Loslassen hält an.',
    fr: '{use} ; {speed} au plus. Relâchez pour arrêter.',
    es: '{use}; {speed} como máximo. Suelte y para.',
  },
  cruise: { en: 'Cruise', de: 'Tempomat', fr: 'Régulateur', es: 'Control de crucero' },
  cruiseOn: {
    en: 'Holds the throttle after a while. Brake to end it.',
    de: 'Hält das Gas nach einer Weile. Bremsen beendet ihn.',
    fr: 'Maintient l’allure après un moment. Freinez pour l’arrêter.',
    es: 'Mantiene la marcha al rato. Frene para terminar.',
  },
  brakes: { en: 'Brakes', de: 'Bremsen', fr: 'Freins', es: 'Frenos' },
  brakesCut: {
    en: 'Each lever also ends the motor’s push.',
    de: 'Jeder Hebel beendet auch den Antrieb.',
    fr: 'Chaque levier coupe aussi le moteur.',
    es: 'Cada maneta corta también el motor.',
  },
  brakesTry: {
    en: 'Try both before you ride off.',
    de: 'Beide vor der Fahrt prüfen.',
    fr: 'Essayez les deux avant de partir.',
    es: 'Pruebe ambos antes de salir.',
  },
  motorBrakes: {
    en: 'A full battery may brake less by the motor.',
    de: 'Mit vollem Akku bremst der Motor weniger.',
    fr: 'Batterie pleine, le moteur freine moins.',
    es: 'Con la batería llena el motor frena menos.',
  },
  lights: { en: 'Lights', de: 'Licht', fr: 'Éclairage', es: 'Luces' },
  lightsSay: {
    en: 'On before dusk and in rain; look that both burn.',
    de: 'Vor der Dämmerung und bei Regen ein; prüfen, ob beide leuchten.',
    fr: 'Allumez avant la nuit et sous la pluie ; vérifiez les deux.',
    es: 'Enciéndalas antes de anochecer y con lluvia; mire que ambas luzcan.',
  },
  range: { en: 'A charge lasts', de: 'Eine Ladung reicht', fr: 'Une charge dure', es: 'Una carga dura' },
  rangeSay: {
    en: '{from} to {to} km: flat to hilly, {share} % of the battery, about 20 °C. Cold, wind and load take more.',
    de: '{from} bis {to} km: flach bis hügelig, {share} % des Akkus, etwa 20 °C. Kälte, Wind und Last kosten mehr.',
    fr: '{from} à {to} km : plat à vallonné, {share} % de la batterie, environ 20 °C. Froid, vent et charge réduisent.',
    es: '{from} a {to} km: llano a ondulado, {share} % de la batería, unos 20 °C. Frío, viento y carga gastan más.',
  },
  charging: { en: 'Charging', de: 'Laden', fr: 'Recharge', es: 'Carga' },
  chargingSay: {
    en: 'Only with its own charger, dry, not unattended, not when damaged, wet or freezing.',
    de: 'Nur mit dem eigenen Ladegerät, trocken, nicht unbeaufsichtigt; nie beschädigt, nass oder bei Frost.',
    fr: 'Seulement avec son chargeur, au sec, sous surveillance ; jamais abîmée, mouillée ou par gel.',
    es: 'Solo con su cargador, en seco y vigilada; nunca dañada, mojada o con helada.',
  },
  dark: { en: 'It goes dark', de: 'Wird dunkel', fr: 'Il s’éteint', es: 'Se apaga' },
  darkSay: {
    en: 'after {min} minutes at rest. Then {use} again.',
    de: 'nach {min} Minuten im Stand. Wieder {use}.',
    fr: 'après {min} minutes à l’arrêt. De nouveau, {use}.',
    es: 'tras {min} minutos parado. De nuevo, {use}.',
  },
  darkAlone: {
    en: 'after {min} minutes at rest. Then switch on again.',
    de: 'nach {min} Minuten im Stand. Dann wieder einschalten.',
    fr: 'après {min} minutes à l’arrêt. Rallumez ensuite.',
    es: 'tras {min} minutos parado. Después, encender de nuevo.',
  },
  tyres: { en: 'Tyres', de: 'Reifen', fr: 'Pneus', es: 'Neumáticos' },
  tyresSay: {
    en: '{from} to {to} bar, cold.',
    de: '{from} bis {to} bar, kalt.',
    fr: '{from} à {to} bar, à froid.',
    es: '{from} a {to} bar, en frío.',
  },
  rules: { en: 'Who rides', de: 'Wer fährt', fr: 'Qui roule', es: 'Quién conduce' },
  fromAge: { en: 'from {age} years', de: 'ab {age} Jahren', fr: 'à partir de {age} ans', es: 'desde {age} años' },
  helmet: { en: 'helmet', de: 'Helm', fr: 'casque', es: 'casco' },
  licence: { en: 'licence', de: 'Führerschein', fr: 'permis', es: 'permiso' },
  plate: { en: 'number plate', de: 'Kennzeichen', fr: 'plaque', es: 'matrícula' },
  insurance: { en: 'insurance', de: 'Versicherung', fr: 'assurance', es: 'seguro' },
  unsure: {
    en: '{what}: ask the authority',
    de: '{what}: Behörde fragen',
    fr: '{what} : demandez à l’autorité',
    es: '{what}: pregunte a la autoridad',
  },
  placeTo: {
    en: '{where}: at most {speed}.',
    de: '{where}: höchstens {speed}.',
    fr: '{where} : {speed} au plus.',
    es: '{where}: {speed} como máximo.',
  },
  noChange: { en: 'Not to be changed', de: 'Nicht verändern', fr: 'Ne pas modifier', es: 'No modificar' },
  noChangeSay: {
    en: 'A changed setting may make it unlawful and unsafe. Something odd, hot or hissing: stop, go away from it, call.',
    de: 'Andere Einstellungen können es verboten und unsicher machen. Etwas ist seltsam, heiß oder zischt: anhalten, Abstand, anrufen.',
    fr: 'Un réglage modifié peut le rendre illégal et dangereux. Anormal, chaud ou sifflant : arrêtez, éloignez-vous, appelez.',
    es: 'Un ajuste cambiado puede hacerlo ilegal e inseguro. Algo raro, caliente o que silba: pare, aléjese, llame.',
  },
  onlyPrivate: {
    en: 'NOT FOR PUBLIC ROADS',
    de: 'NICHT FÜR ÖFFENTLICHE STRASSEN',
    fr: 'INTERDIT SUR LA VOIE PUBLIQUE',
    es: 'PROHIBIDO EN VÍA PÚBLICA',
  },
} as const satisfies Record<string, Said>;

export type RiderSentence = keyof typeof RIDER_SENTENCES;

/** A sentence in a language, with its names filled in. @throws where a name is not given: a bug of the caller */
export function sentence(
  language: Language,
  name: RiderSentence,
  values: Readonly<Record<string, string | number>> = {},
): string {
  return RIDER_SENTENCES[name][language].replace(/\{(\w+)\}/g, (_, key: string) => {
    const value = values[key];
    if (value === undefined) throw new Error(`the sentence "${name}" wants ${key}`);
    return String(value);
  });
}
