import { StreamLanguage } from '@codemirror/language'

const keywords = new Set(
  ('PROGRAM END_PROGRAM VAR END_VAR CONSTANT IF THEN ELSIF ELSE END_IF CASE OF END_CASE FOR TO BY DO END_FOR WHILE END_WHILE ' +
    'REPEAT UNTIL END_REPEAT EXIT RETURN').split(' '),
)
const operators = new Set('AND OR XOR NOT MOD'.split(' '))
const types = new Set(
  ('BOOL BYTE WORD DWORD LWORD SINT INT DINT LINT USINT UINT UDINT ULINT REAL LREAL TIME LTIME DATE LDATE TOD LTOD TIME_OF_DAY DT LDT DATE_AND_TIME STRING WSTRING CHAR WCHAR TON TOF TP R_TRIG F_TRIG MC_POWER MC_RESET MC_HOME ' +
    'MC_MOVEABSOLUTE MC_MOVERELATIVE MC_HALT MC_READACTUALPOSITION MC_READSTATUS').split(' '),
)

/** Colours for Structured Text (IEC 61131-3). Meaning is checked by the core; this only paints. */
export const structuredText = StreamLanguage.define<{ inComment: boolean }>({
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
      if (keywords.has(upper)) return 'keyword'
      if (operators.has(upper)) return 'operatorKeyword'
      if (upper === 'TRUE' || upper === 'FALSE') return 'bool'
      return types.has(upper) ? 'typeName' : 'variableName'
    }
    stream.next()
    return null
  },
  languageData: { commentTokens: { line: '//', block: { open: '(*', close: '*)' } } },
})
