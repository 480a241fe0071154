import { isLoopback } from '../../model/address.ts'
import { own } from '../../model/own.ts'
import type { Fold } from '../../syntax/fold.ts'
import { membersNamed } from '../../syntax/name-index.ts'
import {
  type Call,
  isCall,
  isFunction,
  keyName,
  memberName,
  type SyntaxNode,
  textOf,
  walkTree,
} from '../../syntax/node.ts'
import type { Binding } from '../../syntax/scope.ts'
import { bindingOf, type Tree, usesNamed, usesOf } from '../../syntax/tree.ts'
import { foldScript, knownText } from './fold.ts'
import { Functions, noCalls } from './functions.ts'
import { clientReplaced, isGivenElsewhere, type KnownText, replacedIn, usedBefore } from './given-again.ts'
import {
  classOf,
  enclosingFunction,
  isExportedAtOnce,
  isGivenToConstructor,
  isGlobal,
  isInConstructor,
  isParameter,
  ofBrowser,
} from './holders.ts'
import { before, beginsWith, isJoined, isJoinedList, lastOf, nextBefore, standingBefore } from './joined.ts'
import {
  givenTo,
  type Held,
  holding,
  makesContext,
  ofComponent,
  ofDefault,
  ofListMember,
  overItems,
  providedTo,
  stateOf,
  takersAround,
  takersBehind,
  takersBeside,
} from './lists.ts'
import { isFrequent, Methods } from './methods.ts'
import { isNothing, isUndefined } from './nothing.ts'
import { exportIn, spellingsOf } from './numbered-modules.ts'
import type { Exported, ForHost, Harmless, Outcome } from './outcome.ts'
import {
  asksForDevelopment,
  beginningOf,
  hostOfBranch,
  initialOf,
  isGuarded,
  isOtherwise,
  namesOwnAddress,
  testOf,
} from './own-host.ts'
import { platform, platformName } from './platform.ts'
import {
  calledName,
  givingAddress,
  isAddressKey,
  isBaseKey,
  ofArgument,
  ofAssignment,
  ofMember,
  ofSetting,
  packagedName,
  type Sink,
} from './sinks.ts'
import { Texts } from './texts.ts'

/** How far one value is followed. Code that passes it on more often than this is no client set-up. */
const mostSteps = 4_000

/** Texts before one value that are noted. */
const mostBefore = 20

/** Markup that ends in an attribute whose file is loaded, and a style that ends in a URL. */
const ofElement =
  /<(?:img|source|video|audio|iframe|embed|track|script|image)\b[^<>]{0,400}\b(?:src|srcset|poster|href)=["']?[^\s"'<>]{0,200}$/i
const ofStyle = /\burl\(["']?[^\s"'()]{0,200}$/i

/** Properties of elements and components that are read by people or kept, and ask for nothing. */
const ofElementAlone = /^(?:key|ref|alt|class|className|title|placeholder|aria-\w+)$/

/** How a value came here. */
export interface Way {
  /** Another one takes its place wherever somebody gives it. */
  readonly defaulted: boolean
  /** Functions that it was handed to, one by the other. */
  readonly hands: number
  readonly held: Held
}

export const atFirst: Way = { defaulted: false, hands: 0, held: 'itself' }

/** Through more functions only a library hands a value, where what is named like a method of a client may be that of a map. */
const mostHands = 3

interface Step {
  readonly node: SyntaxNode
  readonly path: readonly string[]
  readonly way: Way
}

/** Follows one value from node to node, and notes where it ends. */
export class Follower implements Outcome {
  readonly sinks = new Set<Sink>()
  readonly harmless = new Set<Harmless>()
  readonly exported: Exported[] = []
  text = ''
  readonly hosts: ForHost[] = []
  readonly before: (string | null)[] = []
  isLost = false
  readonly lostAs = new Set<string>()
  /** Whether the value is a path from the top of a host. */
  isPath = false
  /** Whether it names a file that elements show: of several, each is shown at some time. */
  isFile = false
  readonly #isAbsent: boolean
  readonly #code: string
  readonly #tree: Tree
  readonly #fold: Fold
  readonly #seen = new Set<string>()
  readonly #pending: Step[] = []
  readonly #methods: Methods
  readonly #functions: Functions
  readonly #texts: Texts
  readonly #known: KnownText

  /** @param isAbsent the value is not there: a text that it ends is another's, and what asks for it has something else */
  constructor(code: string, tree: Tree, { isAbsent = false }: { readonly isAbsent?: boolean } = {}) {
    this.#isAbsent = isAbsent
    this.#code = code
    this.#tree = tree
    this.#fold = foldScript(code, tree)
    this.#methods = new Methods(code, tree)
    this.#functions = new Functions(tree, this.#methods)
    this.#texts = new Texts(tree, this.#fold, this.#functions)
    this.#known = (node) => knownText(this.#fold, node)
  }

  /** A use of a name that holds the value itself, or an object with it. */
  use(node: SyntaxNode, path: readonly string[], way: Way): void {
    if (path.length === 0) this.value(node, way)
    else this.object(node, path, way)
  }

  /** A node whose value is the text, or holds it. */
  value(node: SyntaxNode, way: Way): void {
    this.#next(node, [], way)
  }

  /** A node whose value is an object that holds the text under these keys. */
  object(node: SyntaxNode, path: readonly string[], way: Way): void {
    this.#next(node, path, way)
  }

  /** A name that a pattern gives to the value. */
  bound(name: SyntaxNode): void {
    this.#pattern(name, [], atFirst)
  }

  /** A part of a template, behind another. */
  partOf(part: SyntaxNode & { type: 'TemplateElement' }): void {
    const { parent } = part
    if (parent?.type !== 'TemplateLiteral') return
    const at = (parent.quasis as readonly SyntaxNode[]).indexOf(part)
    // More than one hole before it: what they come to is not put together here.
    if (at === 1 && parent.quasis[0]?.value.raw === '') this.#noteBehind(parent.expressions[0] as SyntaxNode)
    else if (at > 0) this.before.push(null)
  }

  /** A path is one of the page's own host only where nothing stands before it. */
  #noteBehind(before: SyntaxNode | undefined): void {
    if (before === undefined) return
    const text = this.#texts.before(before)
    // An attribute, or a word of a longer text, begins anew.
    const own = text === null ? null : (/[^\s"'`(=>]{0,200}$/.exec(text)?.[0] ?? '')
    // A base that is nothing, once its slash is taken off, is a base all the same.
    const isPut = own !== '' || !/^(?:TemplateElement|Literal)$/.test(lastOf(before).type)
    if (isPut && this.before.length < mostBefore) this.before.push(own)
    if (text !== null && (ofElement.test(text) || ofStyle.test(text))) this.sinks.add('element')
    if (this.isPath && own !== '') this.harmless.add('behind')
  }

  /** The text that a literal begins, joined to what stands behind it. */
  putTogether(node: SyntaxNode): void {
    let whole = node
    for (let { parent } = node; parent && isJoined(parent, whole); { parent } = whole) whole = parent
    this.#noteText(whole)
  }

  #noteText(node: SyntaxNode): void {
    const text = knownText(this.#fold, node)
    if (text.length > this.text.length) this.text = text
  }

  /** Looks at all that is still to be looked at, the nearest first: deep inside of a library a value goes everywhere. */
  toItsEnd(): this {
    // What is looked at adds to it.
    for (const { node, path, way } of this.#pending) {
      if (!node.parent) continue
      if (path.length === 0) this.#ofValue(node, node.parent, way)
      else this.#ofObject(node, node.parent, path, way)
    }
    return this
  }

  #next(node: SyntaxNode, path: readonly string[], way: Way): void {
    const key = `${node.start} ${node.end} ${node.type} ${path.join('.')} ${way.defaulted} ${way.hands} ${way.held}`
    if (this.#seen.has(key) || this.#seen.size >= mostSteps) return
    this.#seen.add(key)
    this.#pending.push({ node, path, way })
  }

  /** What does the parent of a value do with it? */
  #ofValue(node: SyntaxNode, parent: SyntaxNode, way: Way): void {
    switch (parent.type) {
      case 'BinaryExpression':
        if (parent.operator === '+') {
          if (parent.right === node) this.#noteBehind(parent.left as SyntaxNode)
          if (!this.#isAbsent || parent.left === node) this.value(parent, way)
          return
        }
        this.harmless.add('compared')
        return
      case 'SwitchCase':
      case 'IfStatement':
        this.harmless.add('compared')
        return
      case 'UnaryExpression':
        if (this.#isAbsent) this.harmless.add('compared')
        return
      case 'ThrowStatement':
        this.harmless.add('reported')
        return
      case 'MemberExpression':
        if (parent.object === node) this.#member(parent, way)
        return
      case 'TaggedTemplateExpression':
        return
      case 'ImportExpression':
        this.#sink('import', parent, way)
        return
      case 'CallExpression':
      case 'NewExpression':
        this.#argument(parent, node, way)
        return
      default:
        this.#passedOn(node, parent, [], way)
    }
  }

  #ofObject(node: SyntaxNode, parent: SyntaxNode, path: readonly string[], way: Way): void {
    switch (parent.type) {
      case 'MemberExpression':
        if (parent.object === node) this.#entry(parent, node, path, way)
        return
      case 'SpreadElement':
        if (parent.parent) this.object(parent.parent, path, way)
        return
      case 'CallExpression':
      case 'NewExpression':
        this.#setting(parent, node, path, way)
        return
      default:
        this.#passedOn(node, parent, path, way)
    }
  }

  /** A member of an object: the one that holds the text, another, or one that only the running page knows. */
  #entry(
    member: SyntaxNode & { type: 'MemberExpression' },
    object: SyntaxNode,
    path: readonly string[],
    way: Way,
  ): void {
    const [key = ''] = path
    const name = memberName(member)
    if (this.#ofList(member, path, way)) return
    const given = way.held === 'in a list' && name !== key ? ofListMember(member) : null
    if (given) this.#fromList(member, path, { ...way, held: given })
    else if (name === key) this.use(member, path.slice(1), way)
    else if (name === null && this.#isChosenElsewhere(member.property as SyntaxNode, key)) return
    else if (name !== null) {
      if (object.type === 'ObjectExpression') this.harmless.add('another')
    } else if (isNothing(beginningOf(this.#code, member.property as SyntaxNode))) this.harmless.add('another')
    else if (isLoopback(key) && namesOwnAddress(this.#code, member.property as SyntaxNode))
      this.harmless.add('guarded')
    else this.use(member, path.slice(1), this.isFile ? way : { ...way, defaulted: true })
  }

  /** Whether a choice between keys is for development, or takes another one: `hosts[isLocal ? "dev" : "prod"]`. */
  #isChosenElsewhere(property: SyntaxNode, key: string): boolean {
    const choice = initialOf(this.#tree, property)
    if (choice.type !== 'ConditionalExpression') return false
    const branches = [choice.consequent, choice.alternate] as SyntaxNode[]
    if (branches.some((each) => textOf(each) === null)) return false
    const taken = branches.find((each) => textOf(each) === key)
    if (taken) return this.#isDecided(choice.test as SyntaxNode, isOtherwise(choice, taken))
    this.harmless.add('another')
    return true
  }

  /** An item of a list, or the list again, that a member of it is or a method gives. */
  #fromList(member: SyntaxNode & { type: 'MemberExpression' }, path: readonly string[], way: Way): void {
    const call = member.parent
    if (memberName(member) !== null && call) this.use(call, path, way)
    // Which one is taken is seen when the page runs.
    else if (member.property.type !== 'Literal' && !this.isFile)
      this.use(member, path, { ...way, defaulted: true })
    else this.use(member, path, way)
  }

  /** The uses of an export by modules that know its module by a number: `n(123).a`. */
  required(module: string, path: readonly string[], way: Way): void {
    for (const word of spellingsOf(module)) this.#tree.watch?.word(word, null)
    walkTree(this.#tree.root as SyntaxNode, (node) => {
      if (node.type !== 'CallExpression' || node.arguments.length !== 1) return
      const [id] = node.arguments
      if (id?.type === 'Literal' && String(id.value) === module && node.callee.type === 'Identifier')
        this.object(node, path, way)
    })
  }

  /** What is the same for the text and for an object that holds it. */
  #passedOn(node: SyntaxNode, parent: SyntaxNode, path: readonly string[], way: Way): void {
    switch (parent.type) {
      case 'LogicalExpression':
        this.#choice(parent, node, path, way)
        return
      case 'ConditionalExpression':
        if (parent.test === node) this.harmless.add('compared')
        else if (this.#isDecided(parent.test as SyntaxNode, isOtherwise(parent, node))) return
        else if (this.#isOption(parent.consequent === node ? parent.alternate : parent.consequent))
          this.harmless.add('replaced')
        else
          this.use(parent, path, {
            ...way,
            defaulted:
              way.defaulted || /void 0|undefined|arguments|null/.test(beginningOf(this.#code, parent.test)),
          })
        return
      case 'SequenceExpression':
        if (parent.expressions.at(-1) === node) this.use(parent, path, way)
        return
      case 'TemplateLiteral':
        this.#noteBehind(nextBefore(parent, node))
        if (!this.#isAbsent || beginsWith(parent, node)) this.use(parent, path, way)
        return
      case 'TSAsExpression':
      case 'TSSatisfiesExpression':
      case 'TSNonNullExpression':
      case 'AwaitExpression':
      case 'ChainExpression':
      case 'ParenthesizedExpression':
        this.use(parent, path, way)
        return
      case 'ArrayExpression':
        if (this.isPath && isJoinedList(parent)) this.#noteBehind(before(parent.elements, node))
        if (!this.#exportOf(node, path, way)) this.use(parent, path, { ...way, held: 'in a list' })
        return
      case 'SpreadElement':
        if (parent.parent) this.use(parent.parent, path, way)
        return
      case 'ForOfStatement':
        if (parent.right === node) this.#each(parent.left as SyntaxNode, path, way)
        return
      case 'AssignmentPattern':
        if (parent.right === node) this.#default(parent, path, way)
        return
      case 'VariableDeclarator':
        if (parent.init === node) this.#pattern(parent.id, path, way)
        return
      case 'AssignmentExpression':
        if (parent.right === node) this.#assigned(parent, path, way)
        return
      case 'Property':
        this.#property(parent, path, way)
        return
      case 'PropertyDefinition':
        this.#membersOfThis(parent, keyName(parent), path, way)
        return
      case 'ReturnStatement':
        this.#result(enclosingFunction(parent), path, way)
        return
      case 'YieldExpression':
        this.#result(enclosingFunction(parent), path, { ...way, held: 'in a list' })
        return
      case 'ArrowFunctionExpression':
        if (parent.body === node) this.#result(parent, path, way)
        return
      case 'ExportDefaultDeclaration':
        this.exported.push({ name: 'default', path, module: null, held: way.held })
        return
      case 'ExportSpecifier':
        this.#exportedName(parent.exported, path, way)
    }
  }

  #each(left: SyntaxNode, path: readonly string[], way: Way): void {
    const [declared] = left.type === 'VariableDeclaration' ? left.declarations : []
    this.#pattern((declared?.id as SyntaxNode | undefined) ?? left, path, { ...way, held: 'itself' })
  }

  /** The default of a parameter is what a call takes that leaves it out; where every call gives one, nobody takes it. */
  #default(pattern: SyntaxNode & { type: 'AssignmentPattern' }, path: readonly string[], way: Way): void {
    const fn = pattern.parent
    const index = fn && isFunction(fn) ? (fn.params as readonly SyntaxNode[]).indexOf(pattern) : -1
    const { calls, isAll } = fn && index >= 0 ? this.#functions.callsOf(fn) : noCalls
    const isOpen = calls.some((call) => call.arguments.some(({ type }) => type === 'SpreadElement'))
    const isLeftOut = calls.some((call) => !isOpen && isUndefined(call.arguments[index]))
    if (isAll && calls.length > 0 && !isOpen && !isLeftOut) this.harmless.add('replaced')
    else this.#pattern(pattern.left, path, { ...way, defaulted: !isLeftOut && !lacks(pattern) })
  }

  #choice(
    parent: SyntaxNode & { type: 'LogicalExpression' },
    node: SyntaxNode,
    path: readonly string[],
    way: Way,
  ): void {
    const left = parent.left
    if (left === node) {
      if (this.#isAbsent) this.harmless.add('guarded')
      else this.use(parent, path, way)
      return
    }
    if (parent.operator === '&&') {
      if (!this.#isDecided(left as SyntaxNode, false)) this.use(parent, path, way)
      return
    }
    const isNone = isNothing(beginningOf(this.#code, initialOf(this.#tree, left)))
    if (!isNone && namesOwnAddress(this.#code, left)) this.harmless.add('after own address')
    else if (!isNone && this.#isOption(left)) this.harmless.add('replaced')
    else {
      const defaulted = way.defaulted || !isNone
      this.use(parent, path, { ...way, defaulted })
    }
  }

  /** Whether a test for development or of the page's own host decides; of which hosts is noted. */
  #isDecided(asked: SyntaxNode, isOther: boolean): boolean {
    const { test, otherwise } = testOf(this.#tree, asked, isOther)
    if (asksForDevelopment(this.#code, test, otherwise)) {
      this.harmless.add('guarded')
      return true
    }
    const host = hostOfBranch(this.#code, test, otherwise)
    if (!host) return false
    this.harmless.add('other host')
    this.hosts.push(host)
    return true
  }

  /** Whether another value is that of an option which this script gives an address of a host. */
  #isOption(other: SyntaxNode): boolean {
    const key = memberName(other)
    return key !== null && !isFrequent(this.#code, key) && isGivenElsewhere(this.#tree, key, this.#known)
  }

  /** What a method of a list does with what the list holds; whether it is one. */
  #ofList(member: SyntaxNode & { type: 'MemberExpression' }, path: readonly string[], way: Way): boolean {
    const call = member.parent
    if (!call || !isCall(call) || call.callee !== member) return false
    const over = overItems(call)
    if (!over) return false
    const fn = over.fn && (isFunction(over.fn) ? over.fn : this.#functions.of(over.fn))
    const taker = fn && isFunction(fn) ? (fn.params[over.at] as SyntaxNode | undefined) : undefined
    if (taker) this.#pattern(taker, path, { ...way, held: over.held ?? way.held })
    const asking =
      over.fn && path.length === 0 ? own(platform, platformName(this.#tree, over.fn) ?? '') : undefined
    if (asking?.[1] === over.at) this.#sink(asking[0], call, way)
    const given = ofListMember(member)
    if (given) this.use(call, path, { ...way, held: given })
    return true
  }

  /** What takes the items of a list that is given to a call, and what keeps the list. Whether that is all that the call does. */
  #itemsGiven(call: Call, node: SyntaxNode, path: readonly string[], way: Way): boolean {
    const item: Way = { ...way, held: 'itself' }
    if (way.held === 'in a box' && call.arguments.length === 1) {
      this.use(call, path, item)
      return true
    }
    if (way.held !== 'in a list') return false
    const beside = takersBeside(call, node)
    for (const taker of beside) this.#pattern(taker, path, item)
    const around = path.length > 0 ? takersAround(node) : []
    for (const taker of around) this.#pattern(taker, path.slice(1), item)
    // A function of this script may show the items by itself, and tell the other what was chosen.
    const isTaken = (beside.length > 0 || around.length > 0) && !this.#functions.of(call.callee)
    // Inside of functions a library hands lists on to everywhere.
    const isKept = beside.length === 0 && around.length === 0 && way.hands === 0
    if (isKept && call.arguments[0] === node) this.#keptIn(call, path, way)
    // What else another file's function does with it is not seen.
    if (isTaken) this.#isTaken(false, path)
    return isTaken
  }

  /** What a function that is not followed may give back: the same, or a state that holds it. */
  #keptIn(call: Call, path: readonly string[], way: Way): void {
    this.use(call, path, way)
    for (const key of holding) this.object(call, [key, ...path], way)
  }

  #member(parent: SyntaxNode & { type: 'MemberExpression' }, way: Way): void {
    if (this.#ofList(parent, [], way)) return
    const given = way.held === 'in a list' ? ofListMember(parent) : null
    if (given) {
      this.#fromList(parent, [], { ...way, held: given })
      return
    }
    const { property } = parent
    const isPlace = parent.computed && property.type === 'Literal' && typeof property.value === 'number'
    const kind = ofMember(isPlace ? String(property.value) : memberName(parent))
    if (kind === 'compared') this.harmless.add('compared')
    if (kind !== 'kept') return
    const call = parent.parent
    this.value(call && isCall(call) && call.callee === parent ? call : parent, { ...way, held: 'itself' })
  }

  #argument(call: Call, node: SyntaxNode, way: Way): void {
    const index = (call.arguments as readonly SyntaxNode[]).indexOf(node)
    if (index < 0) {
      this.#asked(call, node, [], way)
      return
    }
    const given = ofArgument(this.#tree, call, index)
    if (given.is === 'sink' && given.sink === 'client' && way.hands > mostHands) {
      this.isLost = true
      return
    }
    if (given.is === 'sink') {
      this.#noteText(node)
      this.#sink(given.sink, call, way)
      return
    }
    if (given.is === 'reported' || given.is === 'compared') this.harmless.add(given.is)
    const [first] = call.arguments
    if (given.is === 'base' && this.#isAbsent && first && /^[./]/.test(knownText(this.#fold, first)))
      this.#sink('URL', call, way)
    else if (given.is === 'base') this.harmless.add('base')
    if (this.isPath) for (const each of standingBefore(this.#code, call, index)) this.#noteBehind(each)
    if (given.is === 'kept' || given.is === 'base') this.value(call, way)
    if (given.is !== 'passed on') return
    const state = stateOf(this.#tree, call.callee)
    if (state) this.#pattern(state, [], way)
    if (makesContext(call, index)) this.use(call, [], { ...way, held: 'in a box' })
    if (this.#itemsGiven(call, node, [], way)) return
    const isFollowed = this.#parameter(call, index, [], way)
    // A package's function may keep what it is given in what it gives back.
    if (index === 0 && packagedName(this.#tree, call.callee) !== null)
      for (const key of holding) this.object(call, [key], way)
    if (!isFollowed && index === 0 && givingAddress.test(memberName(call.callee) ?? ''))
      this.#sink('client', call, way)
    else this.#isTaken(isFollowed)
  }

  /** A box or a list of a state is asked for what it holds: `signal()`. */
  #asked(call: Call, node: SyntaxNode, path: readonly string[], way: Way): void {
    if (call.callee !== node || call.arguments.length > 0 || way.held === 'itself') return
    this.use(call, path, way.held === 'in a box' ? { ...way, held: 'itself' } : way)
  }

  #isTaken(isFollowed: boolean, path: readonly string[] = []): void {
    if (isFollowed) return
    this.isLost = true
    const [name] = path
    if (name !== undefined) this.lostAs.add(name)
  }

  #setting(call: Call, node: SyntaxNode, path: readonly string[], way: Way): void {
    const index = (call.arguments as readonly SyntaxNode[]).indexOf(node)
    if (index < 0) {
      this.#asked(call, node, path, way)
      return
    }
    if (/^(?:values|entries)$/.test(memberName(call.callee) ?? '') && way.held === 'itself')
      this.use(call, path.slice(1), { ...way, held: 'in a list' })
    const state = stateOf(this.#tree, call.callee)
    if (state) this.#pattern(state, path, way)
    if (makesContext(call, index)) this.use(call, path, { ...way, held: 'in a box' })
    const context = providedTo(this.#tree, call, index, path)
    if (context) this.#binding(context, path.slice(1), { ...way, held: 'in a box' })
    if (this.#itemsGiven(call, node, path, way)) return
    if (/^(?:freeze|assign|seal|reactive|readonly|Proxy)$/.test(calledName(call) ?? '')) {
      this.object(call, path, way)
      return
    }
    if (index === 1 && path.length === 1 && ofElementAlone.test(path[0] ?? '')) {
      this.harmless.add('reported')
      return
    }
    const isBase = isBaseKey(path.at(-1) ?? '')
    const sink = ofSetting(this.#tree, call, index, path)
    // What makes an element is known by its arguments, whatever it is called.
    if (sink !== 'element' && this.#functions.of(call.callee) && !isBase) {
      this.#isTaken(this.#parameter(call, index, path, way), path)
      if (call.callee.type !== 'MemberExpression') return
    }
    if (sink === null && index === 1 && this.#component(call, path, way)) return
    if (sink === 'reported') this.harmless.add('reported')
    else if (sink && !this.#isGivenAgain(call, path.at(-1) ?? '')) this.#sink(sink, call, way)
    else this.#isTaken(sink !== null, path)
  }

  /** The properties of a component of this script: `jsx(Boat, { picture })`. Whether it is one. */
  #component(call: Call, path: readonly string[], way: Way): boolean {
    const [drawn] = call.arguments as readonly SyntaxNode[]
    const fn = drawn?.type === 'Identifier' ? this.#functions.of(drawn) : null
    const properties = fn && isFunction(fn) ? (fn.params[0] as SyntaxNode | undefined) : undefined
    if (properties) this.#pattern(properties, path, way)
    return properties !== undefined
  }

  #isGivenAgain(client: SyntaxNode, key: string): boolean {
    const replaced = isBaseKey(key) ? clientReplaced(this.#tree, client, key, this.#known) : 'not'
    if (replaced !== 'not') this.harmless.add(replaced === 'surely' ? 'replaced' : 'default')
    return replaced !== 'not'
  }

  /** A function of this script: its parameter takes the value. Whether there is one. */
  #parameter(call: Call, index: number, path: readonly string[], way: Way): boolean {
    const fn = this.#functions.of(call.callee)
    const parameter = fn && isFunction(fn) ? fn.params[index] : null
    if (parameter && isGuarded(this.#code, this.#tree, call)) this.harmless.add('guarded')
    else if (parameter)
      this.#pattern(parameter, path, { ...way, hands: Math.min(way.hands + 1, mostHands + 1) })
    return fn !== null
  }

  /** A pattern takes the value: a name, or names for members of it. */
  #pattern(pattern: SyntaxNode, path: readonly string[], way: Way, except: SyntaxNode | null = null): void {
    if (pattern.type === 'AssignmentPattern') {
      this.#pattern(pattern.left, path, way)
      return
    }
    if (pattern.type === 'ObjectPattern') {
      for (const property of pattern.properties) {
        if (property.type === 'Property' && keyName(property) === path[0])
          this.#pattern(property.value, path.slice(1), way)
        if (property.type === 'RestElement') this.#pattern(property.argument, path, way)
      }
    }
    if (pattern.type === 'ArrayPattern') this.#patternOfList(pattern, path, way)
    const binding = bindingOf(this.#tree, pattern)
    if (binding) this.#binding(binding, path, way, except)
  }

  /** Names for the items of a list, or for the value that a state holds first. */
  #patternOfList(pattern: SyntaxNode & { type: 'ArrayPattern' }, path: readonly string[], way: Way): void {
    const isState = path[0] === '0'
    const taking = isState ? pattern.elements.slice(0, 1) : pattern.elements
    for (const each of taking) {
      if (each)
        this.#pattern(
          each as SyntaxNode,
          isState ? path.slice(1) : path,
          isState ? way : { ...way, held: 'itself' },
        )
    }
  }

  /** @param except where the value itself is given */
  #binding(binding: Binding, path: readonly string[], given: Way, except: SyntaxNode | null = null): void {
    const replaced = replacedIn(this.#tree, binding, { key: path[0] ?? null, except, known: this.#known })
    const early = replaced === 'not' || path.length > 0 ? [] : usedBefore(this.#tree, binding, except)
    for (const node of early) this.use(node, path, given)
    if (replaced === 'surely') {
      this.harmless.add('replaced')
      return
    }
    const way = replaced === 'maybe' ? { ...given, defaulted: true } : given
    if (path.length > 0 && this.#takesOthers(binding, path[0] ?? '')) this.harmless.add('another')
    for (const node of usesOf(this.#tree, binding)) {
      const target = node.parent?.type === 'AssignmentExpression' && node.parent.left === node
      if (!target && !early.includes(node)) this.use(node, path, way)
    }
    // `export const api = …`: the declaration itself is what others import.
    if (binding.scope.parent === null && isExportedAtOnce(binding))
      this.exported.push({ name: binding.name, path, module: null, held: way.held })
  }

  /** Whether only other members of an object are read, each by its name. */
  #takesOthers(binding: Binding, key: string): boolean {
    const uses = usesOf(this.#tree, binding)
    const isExported = binding.scope.parent === null && isExportedAtOnce(binding)
    return (
      uses.length > 0 &&
      !isExported &&
      uses.every(({ parent }, at) => {
        const name =
          parent?.type === 'MemberExpression' && parent.object === uses[at] ? memberName(parent) : null
        const call = parent?.parent
        const isMethod = call !== undefined && isCall(call) && call.callee === parent
        return name !== null && name !== key && !isMethod
      })
    )
  }

  #assigned(parent: SyntaxNode & { type: 'AssignmentExpression' }, path: readonly string[], way: Way): void {
    const left = parent.left
    const sink = path.length === 0 ? ofAssignment(left) : null
    if (sink) {
      this.#sink(sink, parent, way)
      return
    }
    this.use(parent, path, way)
    if (left.type !== 'MemberExpression') {
      this.#pattern(left, path, way, left)
      return
    }
    const key = memberName(left)
    if (key === null) return
    const object = left.object
    if (object.type === 'ThisExpression') {
      this.#membersOfThis(left, key, path, way)
      return
    }
    const binding = bindingOf(this.#tree, object)
    if (binding) {
      // What nothing but a client has is one's of whoever hands it in.
      if (path.length === 0 && isBaseKey(key) && isParameter(binding)) this.#sink('client', parent, way)
      this.#binding(binding, [key, ...path], way, left)
      return
    }
    if (!isGlobal(object)) this.isLost = true
    if (!isGlobal(object) || ofBrowser.test(key)) return
    // A member of the window is a name everywhere, in other files too.
    if (isAddressKey(path.at(-1) ?? key)) this.#sink('configuration', parent, way)
    for (const node of usesNamed(this.#tree, key)) {
      if (bindingOf(this.#tree, node) === null) this.use(node, path, way)
    }
  }

  #property(property: SyntaxNode & { type: 'Property' }, path: readonly string[], way: Way): void {
    const key = keyName(property)
    const option = key === 'default' && path.length === 0 ? ofDefault(property) : null
    if (option) {
      this.#tree.watch?.word(option.name, option.component)
      walkTree(option.component, (each) => {
        if (memberName(each) === option.name) this.value(each, { ...way, defaulted: true })
      })
    }
    if (key !== null && property.parent) this.object(property.parent, [key, ...path], way)
  }

  /** Members of `this` in the class or function that a node stands in. One that is set again is a default. */
  #membersOfThis(node: SyntaxNode, key: string | null, path: readonly string[], way: Way): void {
    const owner = classOf(node)
    if (!owner || key === null) return
    const uses: SyntaxNode[] = []
    let isSetAgain = false
    for (const body of owner.type === 'ClassBody' ? this.#methods.bodiesWith(owner) : [owner]) {
      this.#tree.watch?.word(key.replace(/^#/, ''), body)
      walkTree(body, (each) => {
        if (each.type !== 'MemberExpression' || each.object.type !== 'ThisExpression') return
        if (memberName(each) !== key) return
        const target = each.parent?.type === 'AssignmentExpression' && each.parent.left === each
        if (!target) uses.push(each)
        // What a constructor is given is no default, though a redirect may change it later.
        else if (each !== node) isSetAgain ||= !isGivenToConstructor(node) || isInConstructor(each)
      })
    }
    for (const each of uses) this.use(each, path, isSetAgain ? { ...way, defaulted: true } : way)
    if (node.type === 'PropertyDefinition' && node.static)
      for (const each of this.#methods.usesOfClass(owner)) this.object(each, [key, ...path], way)
  }

  /** What a function returns is the value of its calls. */
  #result(fn: SyntaxNode | null, path: readonly string[], way: Way): void {
    if (!fn) return
    if (this.#exportOf(fn, path, way)) return
    // What a list is kept in was seen where it was given to the function.
    if (way.hands > 0 && way.held !== 'itself') return
    const results = [...this.#functions.callsOf(fn).calls, ...this.#methods.resultsOf(fn)]
    for (const call of results) this.use(call, path, way)
    const isGiven = this.#given(fn, path, way)
    if (results.length === 0 && !isGiven) this.isLost = true
  }

  /** What a function gives to whoever was given the function, or has it for a getter. Whether somebody has. */
  #given(fn: SyntaxNode, path: readonly string[], way: Way): boolean {
    const { parent } = fn
    if (parent?.type === 'Property' && parent.kind === 'get') {
      this.#property(parent, path, way)
      return true
    }
    const [name, ...rest] = ofComponent(fn, path) ?? []
    if (name !== undefined && !isFrequent(this.#code, name)) {
      this.#tree.watch?.word(name, null)
      for (const member of membersNamed(this.#tree, name)) this.use(member, rest, way)
      return true
    }
    const { call, makes } = givenTo(fn) ?? {}
    if (!call) return false
    if (way.held === 'in a list')
      for (const taker of takersBehind(call, fn)) this.#pattern(taker, path, { ...way, held: 'in a box' })
    if (!makes) return false
    const held = way.held === 'in a list' ? way.held : makes
    if (makes === 'in a list') this.use(call, path, { ...way, held })
    else this.#keptIn(call, path, { ...way, held })
    return true
  }

  /** Whether a bundler exports the node; then its uses are those of the export. */
  #exportOf(node: SyntaxNode, path: readonly string[], way: Way): boolean {
    const found = exportIn(node)
    if (!found) return false
    this.exported.push({ name: found.name, path, module: found.id, held: way.held })
    if (found.id !== null) this.required(found.id, [found.name, ...path], way)
    return true
  }

  #exportedName(node: SyntaxNode, path: readonly string[], { held }: Way): void {
    const name = node.type === 'Identifier' ? node.name : node.type === 'Literal' ? String(node.value) : null
    if (name !== null) this.exported.push({ name, path, module: null, held })
  }

  #sink(sink: Sink, at: SyntaxNode, { defaulted }: Way): void {
    if (isGuarded(this.#code, this.#tree, at)) this.harmless.add('guarded')
    // A picture for want of another is shown to some, an address for want of another is nobody's who gives one.
    else if (defaulted && !this.isFile) this.harmless.add('default')
    else this.sinks.add(sink)
  }
}

/** Whether a default is that of a member which the object lacks: `const { base = "/" } = { mode: "production" }`. */
function lacks({ parent }: SyntaxNode): boolean {
  const key = parent ? keyName(parent) : null
  const holder = parent?.parent?.parent
  const given = holder?.type === 'VariableDeclarator' && holder.id === parent?.parent ? holder.init : null
  if (key === null || given?.type !== 'ObjectExpression') return false
  return given.properties.every((each) => each.type === 'Property' && ![key, null].includes(keyName(each)))
}
