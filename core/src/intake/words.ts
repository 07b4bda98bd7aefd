// What sheets in English, German, French, Spanish, Italian, Portuguese and Dutch write over columns and into a type's
// cell: a table of words, by what they mean.

import type { ChipPin } from '../parts'

/** Words of headings, as beginnings of words: `funktion` stands for Funktionen too. */
export const headingWords: Record<'legs' | 'name' | 'type' | 'functions' | 'nothing', readonly string[]> = {
  legs: [
    'pin',
    'pins',
    'leg',
    'legs',
    'lead',
    'leads',
    'terminal',
    'terminals',
    'no',
    'nr',
    'num',
    'number',
    'contact',
    'pad',
    'ball',
    'anschluss',
    'anschluß',
    'anschlüsse',
    'bein',
    'beinchen',
    'broche',
    'broches',
    'borne',
    'numéro',
    'numero',
    'número',
    'patilla',
    'patillas',
    'pata',
    'piedino',
    'piedini',
    'pino',
    'pinos',
    'aansluiting',
    'pen',
    'pennen',
    'poot',
    'nummer',
    'n',
  ],
  name: [
    'name',
    'names',
    'signal',
    'signals',
    'port',
    'symbol',
    'pin',
    'pins',
    'i/o',
    'io',
    'gpio',
    'default',
    'main',
    'mnemonic',
    'bezeichnung',
    'benennung',
    'signalname',
    'pinname',
    'nom',
    'désignation',
    'designation',
    'nombre',
    'señal',
    'nome',
    'segnale',
    'sinal',
    'naam',
    'signaal',
    'benaming',
  ],
  type: [
    'type',
    'types',
    'dir',
    'direction',
    'kind',
    'i/o',
    'io',
    'class',
    'structure',
    'buffer',
    'typ',
    'art',
    'richtung',
    'sens',
    'tipo',
    'sentido',
    'dirección',
    'direzione',
    'direção',
    'soort',
    'richting',
  ],
  functions: [
    'function',
    'functions',
    'alternate',
    'alternates',
    'alternative',
    'alt',
    'mux',
    'multiplex',
    'multiplexed',
    'multiplexer',
    'peripheral',
    'peripherals',
    'remap',
    'remapped',
    'additional',
    'special',
    'secondary',
    'shared',
    'also',
    'other',
    'default',
    'af',
    'funktion',
    'funktionen',
    'zweitfunktion',
    'zweitfunktionen',
    'nebenfunktion',
    'nebenfunktionen',
    'belegung',
    'fonction',
    'fonctions',
    'función',
    'funcion',
    'funciones',
    'funzione',
    'funzioni',
    'função',
    'funções',
    'functie',
    'functies',
    'alternatieve',
    'alternativas',
    'alternatives',
    'périphériques',
    'peripherie',
  ],
  nothing: [
    'description',
    'remark',
    'remarks',
    'note',
    'notes',
    'comment',
    'comments',
    'text',
    'reset state',
    'after reset',
    'level',
    'wire',
    'colour',
    'color',
    'beschreibung',
    'bemerkung',
    'bemerkungen',
    'hinweis',
    'hinweise',
    'anmerkung',
    'anmerkungen',
    'remarque',
    'remarques',
    'descripción',
    'descripcion',
    'notas',
    'observaciones',
    'descrizione',
    'descrição',
    'descricao',
    'observações',
    'omschrijving',
    'opmerking',
    'opmerkingen',
    'toelichting',
    'commentaire',
    'commentaires',
    'comentarios',
    'comentários',
    'osservazioni',
  ],
}

const letters = /[^\p{L}\p{N}/]+/u
/** Whether a heading has one of the words. */
export const headingSays = (kind: keyof typeof headingWords, heading: string): boolean => {
  const words = heading.toLowerCase().split(letters)
  const whole = ` ${words.join(' ')} `
  return headingWords[kind].some((w) => (w.includes(' ') ? whole.includes(` ${w} `) : words.includes(w)))
}

type PinType = ChipPin['type'] | 'analog'
const typeWords: readonly (readonly [PinType, readonly string[]])[] = [
  [
    'io',
    [
      'i/o',
      'io',
      'i-o',
      'b',
      'bi',
      'bidi',
      'bidir',
      'bidirectional',
      'bi-directional',
      'inout',
      'in/out',
      'io/a',
      'a/io',
      'i/o/a',
      'dio',
      'ttl',
      'st',
      'd',
      'digital',
      'gpio',
      'i/o/z',
      'input/output',
      'input or output',
      'digital i/o',
      'e/a',
      'ea',
      'ein-/ausgang',
      'ein/ausgang',
      'eingang/ausgang',
      'bidirektional',
      'e/s',
      'entrée/sortie',
      'entrées/sorties',
      'bidirectionnel',
      'bidirectionnelle',
      'entrada/salida',
      'bidireccional',
      'i/u',
      'iu',
      'ingresso/uscita',
      'bidirezionale',
      'entrada/saída',
      'entrada/saida',
      'bidirecional',
      'in-/uitgang',
      'in/uitgang',
      'ingang/uitgang',
      'bidirectioneel',
      'digital io',
    ],
  ],
  [
    'input',
    [
      'i',
      'in',
      'input',
      'di',
      'eingang',
      'entrée',
      'entree',
      'entrada',
      'ingresso',
      'ingang',
      'digital input',
    ],
  ],
  [
    'output',
    [
      'o',
      'out',
      'output',
      'do',
      'ausgang',
      'sortie',
      'salida',
      'uscita',
      'saída',
      'saida',
      'uitgang',
      'digital output',
    ],
  ],
  [
    'supply',
    [
      'p',
      'pwr',
      'power',
      's',
      'sup',
      'supply',
      'vcc',
      'vdd',
      'power supply',
      'v',
      'versorgung',
      'spannungsversorgung',
      'alimentation',
      'alim',
      'alim.',
      'alimentación',
      'alimentacion',
      'alimentazione',
      'alimentação',
      'alimentacao',
      'voeding',
      'p/s',
    ],
  ],
  [
    'ground',
    [
      'g',
      'gnd',
      'ground',
      'vss',
      'masse',
      'm',
      'masa',
      'tierra',
      'massa',
      'terra',
      'aarde',
      'erde',
      'terre',
      'p/g',
    ],
  ],
  [
    'none',
    [
      'nc',
      'n.c.',
      'n/c',
      '-',
      '–',
      '—',
      'none',
      'not connected',
      'no connect',
      'no connection',
      'unused',
      'frei',
      'unbenutzt',
      'nicht verbunden',
      'nicht angeschlossen',
      'non connecté',
      'non connectée',
      'libre',
      'sin conexión',
      'sin conexion',
      'no conectado',
      'non collegato',
      'sem ligação',
      'não ligado',
      'não conectado',
      'niet aangesloten',
      'niet verbonden',
    ],
  ],
  [
    'reference',
    ['ref', 'reference', 'referenz', 'référence', 'referencia', 'riferimento', 'referência', 'referentie'],
  ],
  [
    'analog',
    [
      'a',
      'an',
      'analog',
      'analogue',
      'ai',
      'ao',
      'aio',
      'analogique',
      'analógico',
      'analogico',
      'analoog',
      'analog input',
    ],
  ],
]
const byWord = new Map(typeWords.flatMap(([type, words]) => words.map((w) => [w, type] as const)))

/** What letters mean in a table: by its legend, or by the other letters of their column. */
export type TypeCodes = ReadonlyMap<string, PinType>

/** What a type's word says; undefined where it isn't one. An analog mark says nothing about direction. */
export const typeOfWord = (text: string, codes?: TypeCodes): PinType | undefined => {
  const word = text.trim().toLowerCase()
  return codes?.get(word) ?? byWord.get(word) ?? byWord.get(word.replace(/\s*([/-])\s*/g, '$1'))
}

/** Languages whose word for an input begins with E have E/A or E/S for both; A or S alone is then an output. */
export const codesIn = (cells: readonly string[], legend: TypeCodes): TypeCodes => {
  const words = new Set(cells.map((c) => c.trim().toLowerCase()))
  const codes = new Map(legend)
  const add = (word: string, type: PinType) => codes.has(word) || codes.set(word, type)
  if (words.has('e/a') || words.has('e/s')) add('e', 'input')
  if (words.has('e/a')) add('a', 'output')
  if (words.has('e/s')) add('s', 'output')
  if (words.has('i/u')) add('u', 'output')
  if (words.has('e') && !words.has('a')) add('e', 'input')
  return codes
}

/** `I = input, P = power`: what the letters of a legend mean; undefined where the line is none. */
export const legendIn = (text: string): Map<string, PinType> | undefined => {
  const found = new Map<string, PinType>()
  let pairs = 0
  for (const piece of text
    .replace(/^[^:=]{0,30}:\s+(?=\S{1,6}\s*[=:–-])/, '')
    .split(/[,;]\s*|\s{2,}|\.\s+|\t/)) {
    const pair = /^\s*(\S{1,12})\s*(?:=|:|–|—|-|\bis\b)\s*(\p{L}.*?)\.?\s*$/u.exec(piece)
    if (!pair) continue
    pairs++
    const type =
      typeOfWord(pair[2]!) ??
      pair[2]!
        .split(/\s+/)
        .map((w) => (w.length > 2 ? byWord.get(w.toLowerCase()) : undefined))
        .find((t) => t)
    if (type) found.set(pair[1]!.toLowerCase(), type)
  }
  return pairs >= 2 && found.size >= Math.max(2, pairs * 0.5) ? found : undefined
}

/** A word of a sentence: small letters, perhaps behind one capital. */
export const isPlainWord = (text: string): boolean => /^\p{Lu}?\p{Ll}[\p{Ll}’'-]+[.,:;]*$/u.test(text)

/** What pages carry besides their tables: page 3 of 12, data sheet, continued, revision 2. */
export const pageLine =
  /\b(?:page|seite|página|pagina|blatt)\s+\d+|\b\d+\s*(?:of|\/|von|de|di|van|sur)\s*\d+\s*$|\bdata\s?sheet\b|\bcontinued\b|^\s*table\s+\d+|\b(?:revision|issue|rev\.?)\s+\d/i
