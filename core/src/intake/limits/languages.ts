// What rows and titles of limits are called in other languages, put into the words that rows are recognized by.

/** Longer ones first where one is part of another. */
const english: readonly (readonly [RegExp, string])[] = (
  [
    // German
    ['(?:absolute )?grenzwerte|grenzdaten', 'absolute maximum ratings'],
    ['(?:empfohlene )?betriebsbedingungen', 'recommended operating conditions'],
    ['kennwerte|elektrische eigenschaften', 'electrical characteristics'],
    ['versorgungsspannung|betriebsspannung', 'supply voltage'],
    ['eingangsspannung', 'input voltage'],
    ['ausgangsspannung', 'output voltage'],
    ['gesamtstrom', 'total current'],
    ['ausgangsstrom|laststrom', 'output current'],
    ['leckstrom', 'leakage current'],
    ['ruhestrom', 'quiescent current'],
    ['stromaufnahme', 'supply current'],
    ['strom (?:je|pro) (?:anschluss|pin|ausgang)', 'current per pin'],
    ['(?:im |in )?(?:ruhezustand|schlaf|ruhe)', 'sleep'],
    ['im betrieb|aktiv', 'active'],
    ['umgebungstemperatur', 'ambient temperature'],
    ['sperrschichttemperatur', 'junction temperature'],
    ['lagertemperatur', 'storage temperature'],
    ['wärmewiderstand', 'thermal resistance'],
    ['taktfrequenz', 'clock frequency'],
    ['wirkungsgrad', 'efficiency'],
    ['abfallspannung|spannungsabfall', 'dropout voltage'],
    ['eingangskondensator', 'input capacitor'],
    ['ausgangskondensator', 'output capacitor'],
    ['eingangskapazität', 'input capacitance'],
    // French
    ['(?:valeurs )?(?:limites absolues|maximales absolues)|valeurs limites', 'absolute maximum ratings'],
    [
      'conditions (?:de fonctionnement )?recommandées|conditions de fonctionnement',
      'recommended operating conditions',
    ],
    ['caractéristiques électriques', 'electrical characteristics'],
    ['tension d.alimentation', 'supply voltage'],
    ['tension d.entrée', 'input voltage'],
    ['tension de sortie', 'output voltage'],
    ['tension de déchet', 'dropout voltage'],
    ['courant total', 'total current'],
    ['courant de sortie', 'output current'],
    ['courant de fuite', 'leakage current'],
    ['courant de repos', 'quiescent current'],
    ['courant par broche', 'current per pin'],
    ['consommation', 'supply current'],
    ['(?:en )?(?:veille|sommeil)', 'sleep'],
    ['en fonctionnement|actif', 'active'],
    ['température ambiante', 'ambient temperature'],
    ['température de jonction', 'junction temperature'],
    ['résistance thermique', 'thermal resistance'],
    ['fréquence', 'frequency'],
    ['rendement', 'efficiency'],
    ['condensateur d.entrée', 'input capacitor'],
    ['condensateur de sortie', 'output capacitor'],
    ['capacité d.entrée', 'input capacitance'],
    ['température de stockage', 'storage temperature'],
    // Spanish, Italian, Portuguese, Dutch
    [
      '(?:valores|valori) (?:máximos |massimi )?(?:absolutos|assoluti)|límites absolutos',
      'absolute maximum ratings',
    ],
    [
      '(?:valores|limites) (?:máximos )?absolutos|absolute maximumwaarden|grenswaarden',
      'absolute maximum ratings',
    ],
    ['condiciones (?:de operación|recomendadas|de funcionamiento)', 'recommended operating conditions'],
    ['condizioni (?:operative|raccomandate|di funzionamento)', 'recommended operating conditions'],
    ['condições (?:de operação|recomendadas|de funcionamento)', 'recommended operating conditions'],
    ['(?:aanbevolen )?bedrijfscondities', 'recommended operating conditions'],
    [
      '(?:tensión|voltaje) de alimentación|tensione di alimentazione|tensão de alimentação|voedingsspanning',
      'supply voltage',
    ],
    [
      '(?:tensión|voltaje) de entrada|tensione (?:di|d.)\\s?ingresso|tensão de entrada|ingangsspanning',
      'input voltage',
    ],
    [
      '(?:tensión|voltaje) de salida|tensione (?:di|d.)\\s?uscita|tensão de saída|uitgangsspanning',
      'output voltage',
    ],
    ['corriente total|corrente totale|corrente total|totale stroom', 'total current'],
    ['corriente de salida|corrente (?:di|d.)\\s?uscita|corrente de saída|uitgangsstroom', 'output current'],
    ['corriente de fuga|corrente di (?:perdita|dispersione)|corrente de fuga|lekstroom', 'leakage current'],
    ['corriente de reposo|corrente di riposo|corrente de repouso|ruststroom', 'quiescent current'],
    [
      'corriente por (?:pin|patilla)|corrente per (?:pin|piedino)|corrente por pino|stroom per (?:pen|pin)',
      'current per pin',
    ],
    ['consumo|assorbimento|stroomverbruik|stroomopname', 'supply current'],
    ['(?:en |in |em )?(?:reposo|riposo|repouso|slaapstand|slaap|dormido)', 'sleep'],
    ['activo|attivo|ativo|actief|en funcionamiento|in funzione', 'active'],
    ['temperatura (?:ambiente|de ambiente)|omgevingstemperatuur', 'ambient temperature'],
    ['temperatura (?:de la unión|di giunzione|da junção)|junctietemperatuur', 'junction temperature'],
    ['(?:resistencia|resistenza|resistência) t[eé]rmi[cç][ao]|warmteweerstand', 'thermal resistance'],
    ['condensador de entrada|condensatore (?:di|d.)\\s?ingresso|ingangscondensator', 'input capacitor'],
    ['condensador de sa(?:li|í)da|condensatore (?:di|d.)\\s?uscita|uitgangscondensator', 'output capacitor'],
    [
      'capacidad de entrada|capacità (?:di|d.)\\s?ingresso|capacitância de entrada|ingangscapaciteit',
      'input capacitance',
    ],
    ['frecuencia|frequenza|frequência|klokfrequentie', 'frequency'],
    ['rendimiento|rendimento|eficiencia|eficiência|efficienza', 'efficiency'],
  ] as const
).map(([words, now]) => [new RegExp(words, 'giu'), now])

export const inEnglish = (text: string): string =>
  english
    .reduce((now, [words, put]) => now.replace(words, ` ${put} `), text)
    .replace(/\s+/g, ' ')
    .trim()
