import { StreamLanguage } from '@codemirror/language'

const operators = new Set('AND OR XOR NOT MOD'.split(' '))

/** Words of one colour each, in capitals. */
export interface Painted {
  keywords: Set<string>
  types: Set<string>
}

/** Colours for Structured Text (IEC 61131-3). Meaning is checked by the core; this only paints. */
export const structuredText = ({ keywords, types }: Painted) => StreamLanguage.define<{ inComment: boolean }>({
  name: 'structured-text',
  startState: () => ({ inComment: false }),
  token(stream, state) {
    if (state.inComment) {
      if (stream.skipTo('*)')) {
        stream.match('*)')
        state.inComment = false
      } else stream.skipToEnd()
      return 'comment'
    }
    if (stream.eatSpace()) return null
    if (stream.match('(*')) {
      state.inComment = true
      return 'comment'
    }
    if (stream.match('//')) {
      stream.skipToEnd()
      return 'comment'
    }
    if (stream.match(/^(?:[A-Z]+#)?('(\$.|[^'$])*'|"(\$.|[^"$])*")/i)) return 'string'
    if (stream.match(/^(L?T|L?TIME)#[-0-9a-z_.]+/i) || stream.match(/^(L?D|L?DATE|L?TOD|L?DT|TIME_OF_DAY|DATE_AND_TIME)#[-0-9:.]+/i) || stream.match(/^[A-Z]+#[-0-9A-F_.#]+/i) || stream.match(/^\d[\d_]*(#[0-9A-F_]+|\.\d[\d_]*)?(E[+-]?\d+)?/i)) return 'number'
    const word = stream.match(/^[A-Za-z_]\w*/) as RegExpMatchArray | null
    if (word) {
      const upper = word[0].toUpperCase()
      if (operators.has(upper)) return 'operatorKeyword'
      if (upper === 'TRUE' || upper === 'FALSE' || upper === 'NULL') return 'bool'
      if (keywords.has(upper)) return 'keyword'
      return types.has(upper) ? 'typeName' : 'variableName'
    }
    stream.next()
    return null
  },
  languageData: { commentTokens: { line: '//', block: { open: '(*', close: '*)' } } },
})
