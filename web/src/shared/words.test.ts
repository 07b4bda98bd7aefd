import { durationWords, fileName } from './words'

test.each([
  [90, '2 min'],
  [3600 * 5 + 60 * 12, '5 h 12 min'],
  [86400 * 37.4, '37 days'],
  [86400 * 412.6, '413 days'],
  [Infinity, 'no end'],
])('%d s', (seconds, words) => expect(durationWords(seconds)).toBe(words))

test.each([
  ['Darkroom timer', 'darkroom-timer.json'],
  ['../../etc', 'etc.json'],
  ['…', 'project.json'],
])('a file named after “%s”', (name, file) => expect(fileName(name, '.json')).toBe(file))
