import { expect, test } from 'vitest'
import { declaredAtBrace } from './declared-at-brace.ts'

test.each<[string, string[]]>([
  ['x=(a,b)=>{', ['a', 'b']],
  ['x=a=>{', ['a']],
  ['x=async a => {', ['a']],
  ['function(a,...b){', ['a', 'b']],
  ['function name(a) {', ['a']],
  ['{method(a){', ['a']],
  ['try{}catch(a){', ['a']],
  ['x=>{const a=1;', ['x', 'a']],
  ['f(()=>{let a,b;', ['a', 'b']],
  ['function(x){var a=1;', ['x', 'a']],
  ['if(b){const a=1;', ['a']],
  // The name is the function's around.
  ['if(b){var a=1;', []],
  ['case 1:{var a=1;', []],
  ['catch(b){var a=1;', ['b']],
  // What is asked for is the name around.
  ['if(a){', []],
  ['for(const a of b){', []],
  ['for await(const a of b){', []],
  ['while(a){', []],
  ['switch(a){', []],
  ['with(a){', []],
  ['class extends f(a){', []],
  ['class extends t.f(a){', []],
  ['class extends(0,f)(a){', []],
  ['class extends new F(a){', []],
  ['call(a)\n{', []],
  ['(a=b)=>{', []],
  ['({a})=>{', []],
  ['x.a=>{', []],
])('%s', (code, names) => {
  const brace = code.lastIndexOf('{')
  expect([...declaredAtBrace(code, brace)]).toStrictEqual(names)
})
