import { expect, test } from 'vitest'
import { nameBefore, ShownMembers } from './shown-members.ts'

function useOf(code: string): ReturnType<ShownMembers['useOf']> {
  const members = new ShownMembers()
  members.add(code)
  return members.useOf('image')
}

test.each<[string, string, ReturnType<typeof useOf>]>([
  ['made', '(0,j.jsx)("img",{alt:e.name,src:e.image},e.name)', 'shown'],
  ['made, by Vue', 'Ti(`img`,{key:e.name,src:e.image,alt:e.name},null,8,$a)', 'shown'],
  ['made, not minified', 'h("img", { src: boat.image, alt: `${boat.name}` })', 'shown'],
  ['set', 'ur(n,`src`,Q(t).image)', 'shown'],
  ['an attribute', 'i.setAttribute("src",e.image)', 'shown'],
  ['a property of an element', 'i.src=e.image;f()', 'shown'],
  ['in markup', 'e=>`<img alt="${e.name}" src="${e.image}">`', 'shown'],
  ['in joined markup', `'<img src="'+e.image+'">'`, 'shown'],
  ['deeper', 'i.src=e.boats[0].of.image', 'shown'],
  ['one of two', 'i.src=e.image||t.image', null],
  ['a member of a member', 'i.src=e.boat?.image', 'shown'],
  ['behind a text', '(0,j.jsx)("img",{src:base+e.image})', 'joined'],
  ['behind a hole', 'ur(n,`src`,`${b}${t.image??""}`)', 'joined'],
  ['behind a text in markup', 'e=>`<img src="/base${e.image}">`', 'joined'],
  ['behind a hole in markup', 'e=>`<img src="${b}${e.image.slice(1)}">`', 'joined'],
  ['handed to a function', 'h("img",{src:asset(e.image)})', 'joined'],
  ['given another value', 'l.map(e=>({...e,image:`/b/`+e.image}));i.src=e.image', 'joined'],
  ['given another value by somebody', 'var s={image:`/b/`+e.image};i.src=e.image', null],
  ['both', 'i.src=e.image;o.src=b+t.image', null],
  ['cut elsewhere', 'i.src=e.image;f(e.image.slice(1))', null],
  ['put behind something elsewhere', 'i.src=e.image;f("/b"+e.image)', null],
  ['a component of somebody', 'h(Picture,{src:e.image})', null],
  ['another member', 'i.src=e.picture', null],
  ['compared', 'i.src==e.image', null],
])('%s', (_, code, use) => {
  expect(useOf(code)).toBe(use)
})

test.each<[string, string, string | null]>([
  ['a member', 'a=[{image:"', 'image'],
  ['quoted', '{ "image": "', 'image'],
  ['a template', '{image:`', 'image'],
  ['a list', '["', null],
  ['an argument', 'f("', null],
])('the name before %s', (_, code, name) => {
  expect(nameBefore(`${code}/a.png"`, code.length)).toBe(name)
})
