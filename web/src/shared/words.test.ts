import { fileName } from './words'

test.each([
  ['Darkroom timer', 'darkroom-timer.json'],
  ['../../etc', 'etc.json'],
  ['…', 'project.json'],
])('a file named after “%s”', (name, file) => expect(fileName(name, '.json')).toBe(file))
