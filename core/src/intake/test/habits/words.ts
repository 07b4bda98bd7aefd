// What sheets in seven languages write over their columns and into a type's cell.

import type { ExpectedLeg } from '../expected'

type Type = ExpectedLeg['type']
export interface Words {
  leg: string[]
  name: string[]
  type: string[]
  functions: string[]
  about: string[]
  types: Record<string, string[]>
  /** A sentence about a leg, of no use to anybody’s plan. */
  said: Partial<Record<Type, string[]>>
  legend: (letters: Record<string, string>) => string
}
const legendIn =
  (words: Record<string, string>) =>
  (letters: Record<string, string>): string =>
    Object.entries(letters)
      .map(([type, letter]) => `${letter} = ${words[type]}`)
      .join(', ')

export const languages: Record<string, Words> = {
  en: {
    leg: ['Pin', 'Pin No.', 'Leg', 'Terminal', '#', 'Number'],
    name: ['Name', 'Pin Name', 'Signal', 'Symbol', 'Port'],
    type: ['Type', 'I/O', 'Dir.', 'Direction'],
    functions: ['Alternate functions', 'Functions', 'Multiplexed functions', 'Peripheral functions', 'Also'],
    about: ['Description', 'Remarks', 'Comment'],
    types: {
      io: ['I/O', 'IO', 'B', 'Bidirectional'],
      input: ['I', 'IN', 'Input'],
      supply: ['P', 'PWR', 'Power', 'S'],
      ground: ['G', 'GND', 'Ground', 'P'],
      reference: ['A', 'Analog', '-'],
      none: ['-', 'NC', '–'],
    },
    said: {
      io: [
        'General-purpose input or output',
        'Digital port with interrupt',
        'Port line, tri-state after reset',
      ],
      input: ['Restarts the device when low', 'System reset, active low'],
      supply: ['Supply voltage', 'Positive supply of the core'],
      ground: ['Ground', 'Common ground for all blocks'],
      reference: ['Reference for the converter'],
      none: ['Leave open'],
    },
    legend: legendIn({ io: 'input/output', input: 'input', supply: 'power', ground: 'ground' }),
  },
  de: {
    leg: ['Anschluss', 'Nr.', 'Pin-Nr.', 'Bein'],
    name: ['Bezeichnung', 'Name', 'Signal'],
    type: ['Typ', 'Art', 'Richtung'],
    functions: ['Funktionen', 'Alternative Funktionen', 'Zweitfunktionen'],
    about: ['Beschreibung', 'Bemerkung'],
    types: {
      io: ['E/A', 'Ein-/Ausgang'],
      input: ['E', 'Eingang'],
      supply: ['Versorgung', 'V', 'P'],
      ground: ['Masse', 'M', 'P'],
      reference: ['Referenz', '-'],
      none: ['-', 'frei'],
    },
    said: {
      io: ['Digitaler Ein- oder Ausgang', 'Portleitung mit Pull-up'],
      input: ['Setzt den Baustein zurück'],
      supply: ['Versorgungsspannung des Kerns'],
      ground: ['Gemeinsame Masse'],
      reference: ['Bezugsspannung des Wandlers'],
      none: ['Nicht anschließen'],
    },
    legend: legendIn({ io: 'Ein-/Ausgang', input: 'Eingang', supply: 'Versorgung', ground: 'Masse' }),
  },
  fr: {
    leg: ['Broche', 'N°', 'Numéro'],
    name: ['Nom', 'Désignation', 'Signal'],
    type: ['Type', 'Sens'],
    functions: ['Fonctions', 'Fonctions alternatives'],
    about: ['Description', 'Remarques'],
    types: {
      io: ['E/S', 'Entrée/sortie'],
      input: ['E', 'Entrée'],
      supply: ['Alimentation', 'Alim.'],
      ground: ['Masse'],
      reference: ['Référence', '-'],
      none: ['-', 'Non connecté'],
    },
    said: {
      io: ['Entrée ou sortie à usage général'],
      input: ['Remise à zéro du circuit'],
      supply: ['Tension d’alimentation'],
      ground: ['Masse commune'],
      reference: ['Tension de référence du convertisseur'],
      none: ['Ne pas connecter'],
    },
    legend: legendIn({ io: 'entrée/sortie', input: 'entrée', supply: 'alimentation', ground: 'masse' }),
  },
  es: {
    leg: ['Patilla', 'Terminal', 'N.º'],
    name: ['Nombre', 'Señal'],
    type: ['Tipo', 'Sentido'],
    functions: ['Funciones', 'Funciones alternativas'],
    about: ['Descripción', 'Notas'],
    types: {
      io: ['E/S', 'Entrada/salida'],
      input: ['E', 'Entrada'],
      supply: ['Alimentación', 'Alim.'],
      ground: ['Masa', 'Tierra'],
      reference: ['Referencia', '-'],
      none: ['-', 'Sin conexión'],
    },
    said: {
      io: ['Entrada o salida de uso general'],
      input: ['Reinicia el dispositivo'],
      supply: ['Tensión de alimentación'],
      ground: ['Masa común del circuito'],
      reference: ['Tensión de referencia del convertidor'],
      none: ['No conectar'],
    },
    legend: legendIn({ io: 'entrada/salida', input: 'entrada', supply: 'alimentación', ground: 'masa' }),
  },
  it: {
    leg: ['Piedino', 'N.'],
    name: ['Nome', 'Segnale'],
    type: ['Tipo', 'Direzione'],
    functions: ['Funzioni', 'Funzioni alternative'],
    about: ['Descrizione', 'Note'],
    types: {
      io: ['I/U', 'Ingresso/uscita'],
      input: ['I', 'Ingresso'],
      supply: ['Alimentazione'],
      ground: ['Massa'],
      reference: ['Riferimento', '-'],
      none: ['-', 'Non collegato'],
    },
    said: {
      io: ['Ingresso o uscita di uso generale'],
      input: ['Riavvia il dispositivo'],
      supply: ['Tensione di alimentazione'],
      ground: ['Massa comune del circuito'],
      reference: ['Tensione di riferimento del convertitore'],
      none: ['Da non collegare'],
    },
    legend: legendIn({ io: 'ingresso/uscita', input: 'ingresso', supply: 'alimentazione', ground: 'massa' }),
  },
  pt: {
    leg: ['Pino', 'N.º'],
    name: ['Nome', 'Sinal'],
    type: ['Tipo', 'Sentido'],
    functions: ['Funções', 'Funções alternativas'],
    about: ['Descrição', 'Observações'],
    types: {
      io: ['E/S', 'Entrada/saída'],
      input: ['E', 'Entrada'],
      supply: ['Alimentação'],
      ground: ['Terra'],
      reference: ['Referência', '-'],
      none: ['-', 'Sem ligação'],
    },
    said: {
      io: ['Entrada ou saída de uso geral'],
      input: ['Reinicia o dispositivo'],
      supply: ['Tensão de alimentação'],
      ground: ['Terra comum do circuito'],
      reference: ['Tensão de referência do conversor'],
      none: ['Não ligar'],
    },
    legend: legendIn({ io: 'entrada/saída', input: 'entrada', supply: 'alimentação', ground: 'terra' }),
  },
  nl: {
    leg: ['Aansluiting', 'Pen', 'Nr.'],
    name: ['Naam', 'Signaal'],
    type: ['Soort', 'Richting'],
    functions: ['Functies', 'Alternatieve functies'],
    about: ['Omschrijving', 'Opmerkingen'],
    types: {
      io: ['I/U', 'In-/uitgang'],
      input: ['I', 'Ingang'],
      supply: ['Voeding'],
      ground: ['Massa', 'Aarde'],
      reference: ['Referentie', '-'],
      none: ['-', 'Niet aangesloten'],
    },
    said: {
      io: ['Algemene in- of uitgang'],
      input: ['Herstart de schakeling'],
      supply: ['Voedingsspanning van de kern'],
      ground: ['Gemeenschappelijke massa'],
      reference: ['Referentiespanning van de omzetter'],
      none: ['Niet aansluiten'],
    },
    legend: legendIn({ io: 'in-/uitgang', input: 'ingang', supply: 'voeding', ground: 'massa' }),
  },
}
