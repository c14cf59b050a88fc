"""The findings about single files."""

from __future__ import annotations

from clean_carry.component.rules import Row, table

_ROWS: tuple[Row, ...] = (
    # -- from version 2 of the runtime to version 3 ---------------------------------------------
    (
        "native-removed",
        "note",
        "the .native listener is now a component listener: it falls through to the root element unless the "
        "child emits an event of that name",
        "Check that the child does not emit it",
        '<berth-row @click.native="pick" />',
    ),
    (
        "transition-renamed",
        "note",
        "transition classes are called -enter-from and -leave-from in version 3; this transition's name is "
        "dynamic, so its styles were not renamed",
        "Rename the classes in the styles",
        '<transition :name="kind">',
    ),
    # -- statements that become an object ----------------------------------------------------------
    (
        "unread-statement",
        "error",
        "this top-level statement is not carried",
        "Write it in a form the tool carries, or move the code to a function the component calls",
        "class Tally {}   // in a <script setup>",
    ),
    (
        "awaits-at-top",
        "error",
        "the script waits at its top level, so the component suspends until the promise settles; an object "
        "has no such moment",
        "Load in onMounted, and show a placeholder until it is there",
        "const fares = ref(await load());",
    ),
    (
        "shared-call-takes",
        "error",
        "a call of a composable uses something the component only has outside of setup()",
        "Give the composable the inputs, or refs of its own",
        "const { sorted } = useSorting(rows, emit);",
    ),
    (
        "shallow-changed",
        "error",
        "a shallow ref or object is changed inside, which renders nothing there; in data() it would render",
        "Replace the whole value, or use ref()",
        "const plan = shallowRef({ rows: [] }); plan.value.rows.push(row);",
    ),
    (
        "reference-drawn",
        "error",
        "the template reads a template ref: `$refs` does not render again when the element comes",
        "Keep what the template needs of the element in a ref, set in onMounted",
        '<p v-if="box">{{ box.offsetWidth }}</p>',
    ),
    (
        "reference-followed",
        "error",
        "a computed value or an effect reads a template ref: `$refs` tells nobody that the element came",
        "Read the element in onMounted or in a handler",
        "const width = computed(() => box.value?.offsetWidth);",
    ),
    (
        "type-not-followed",
        "error",
        "what this type allows is not known from this file alone, so the input or event cannot be declared",
        "Declare the type in this file, or declare the inputs with an object",
        "defineProps<Imported>()",
    ),
    (
        "name-not-open",
        "error",
        "the runtime keeps names that begin with _ or $ for itself: data and methods cannot be called so",
        "Rename it",
        "const _rows = ref([]);",
    ),
    (
        "state-from-derived",
        "error",
        "the first value of a ref needs something that data() does not have yet: a computed value, or a "
        "plain variable",
        "Work the first value out from the inputs",
        "const left = computed(() => props.seats - 1); const shown = ref(left.value);",
    ),
    (
        "field-too-early",
        "error",
        "a plain variable is needed before created() can set it",
        "Make it a constant of the module, or a ref",
        "let log = makeLog(); watch(tide, () => log.push(1), { immediate: true });",
    ),
    (
        "hooks-meet",
        "error",
        "several hooks of one moment cannot be one: one of them returns early or waits",
        "Write one hook that calls the functions in turn",
        "onMounted(async () => {…}); onMounted(() => {…});",
    ),
    (
        "component-by-value",
        "error",
        "the template uses an imported component as a value, not as a tag",
        "Choose it in a computed value",
        '<component :is="wide ? WideStrip : Strip" />',
    ),
    (
        "model-of-newer",
        "error",
        "the older runtime has no useModel()",
        "Declare the input and the event by hand",
        "const seats = defineModel();",
    ),
    # -- components that a script registers -----------------------------------------------------
    (
        "several-registered",
        "error",
        "the script registers several components, and a single file holds one",
        "Move each of them to a script of its own",
        "app.component('berth-row', { … }); app.component('berth-list', { … });",
    ),
    (
        "registered-elsewhere",
        "error",
        "the component is registered inside other code, or the script has another default export",
        "Register it at the top level of a script without another default export",
        "const made = app.component('berth-row', { … });",
    ),
    (
        "makes-application",
        "error",
        "the script also creates the application that the component is registered with",
        "Move the component to a script of its own",
        "const app = createApp({}); app.component('berth-row', { … }); app.mount('#app');",
    ),
    (
        "template-not-text",
        "error",
        "the template is computed, or names an element of the page",
        "Write it as a string literal in the object",
        "template: '#berth-row'",
    ),
    (
        "registered-by-name",
        "note",
        "the script registered this component globally; the new file only exports it",
        "Register it where the application is created, or import it where it is used",
        "app.component('berth-row', { … });",
    ),
    # -- the single-file family ---------------------------------------------------------------
    (
        "method-made-once",
        "error",
        "a call makes this method once for all instances and keeps something between calls; as a "
        "statement of the "
        "new form it would be made for each instance",
        "Make it in created(), where each instance gets its own, or move it to the module",
        "methods: { load: once(function () { … }) }",
    ),
    (
        "made-by-call",
        "error",
        "a function makes the component of this object, and may add to it or change it; the new form is "
        "given to no function",
        "Write what the function does into the component, or export the object itself",
        "export default make({ data() { … } });",
    ),
    (
        "tag-asked",
        "error",
        "code of the project asks what is handed to a component for the tag it is written as, and the "
        "new form has none for what it imports",
        "Ask for the component itself or for its name there",
        "<berth-list><berth-item /></berth-list>   // node.componentOptions.tag === 'berth-item'",
    ),
    (
        "this-not-known",
        "error",
        "it is not seen what calls this function, and so what its `this` is; it asks for a member of the "
        "component",
        "Write it as an arrow function where the instance is meant",
        "return later(function () { this.update(); });",
    ),
    (
        "instance-provided-unknown",
        "note",
        "the instance was provided, and no file of the project shows what descendants ask for; now all "
        "that the component declares is, and nothing that the runtime gives every instance ($el, $emit)",
        "Provide what descendants need, each by its name",
        "provide() { return { form: this }; }",
    ),
    (
        "removed-from-runtime",
        "error",
        "version 3 of the runtime no longer has this, so the component fails there as it is",
        "Replace it as the migration notes of the runtime say, then carry",
        "mounted() { this.$once('hook:beforeDestroy', stop); }",
    ),
    (
        "hook-never-ran",
        "warning",
        "this version of the runtime does not know the hook, so its code never ran; it is left out",
        "If the code is needed, rename the hook for this version (beforeUnmount, unmounted) and carry "
        "again",
        "beforeDestroy() { clearInterval(this.timer); } // on version 3",
    ),
    (
        "element-named-like-file",
        "error",
        "an element named like the file would be the component itself in the flat form",
        "Import the component it means, or call the file otherwise",
        "<inspector> in Inspector.vue, registered by the application",
    ),
    (
        "named-apart",
        "note",
        "an element is named like the file, which the component itself would be called: it gets a name",
        "Look whether something asks for the component by a name, such as what keeps it alive",
        "<inspector> in Inspector.vue, registered by the application",
    ),
    (
        "unknown-option",
        "error",
        "the component has an option that is not read yet",
        "Carry the component by hand",
        "mixins: [tides]",
    ),
    (
        "state-not-literal",
        "error",
        "the state is not one plain object",
        "Return one object literal from `data`",
        "data() { const a = {}; fill(a); return a; }",
    ),
    (
        "state-write-unread",
        "error",
        "a state field is written by a pattern or a loop",
        "Assign the field by a statement of its own",
        "({ a: this.a } = reply)",
    ),
    (
        "derived-written",
        "error",
        "a derived value is written",
        "Write what it is derived from",
        "this.left = 0",
    ),
    (
        "member-undeclared",
        "note",
        "nobody declares this member: it is nothing, unless it is set from outside or by a plug-in",
        "Declare it, or take it away",
        "methods: { close() { if (this.sticky) … } }   // no input, state or method of this name",
    ),
    (
        "instance-provided",
        "note",
        "the instance was provided; now these members of it are, those the project asks for",
        "Add what others ask for, or provide what is meant by name",
        "provide() { return { dock: this }; }",
    ),
    (
        "mixin-not-followed",
        "error",
        "what is mixed in was not found in the project, or is not an object that can be read",
        "Mix in an object of the project, or write out what it brings first",
        "import list from 'a-package'; … mixins: [list]",
    ),
    (
        "mixin-needs-member",
        "error",
        "a member cannot be opened: what is mixed in has it too, or asks for it too early or by `$data`",
        "Turn the mixin into a function that is given what it needs first",
        "mixins: [Closing], … methods: { close() {} }   // Closing has close() too",
    ),
    (
        "methods-given-out",
        "note",
        "nothing inside uses these methods: others may call them by a reference, and still can",
        "Take those out of `defineExpose` that nobody calls",
        "methods: { focus() { … } }   // called by parents as this.$refs.name.focus()",
    ),
    (
        "members-opened",
        "note",
        "what is mixed in, or is handed the instance, asks it for these by name: these are open, no others",
        "Turn the mixin into a function that is given what it needs",
        "mixins: [Closing], … methods: { close() {} }   // Closing calls this.close()",
    ),
    (
        "members-listed",
        "warning",
        "what is mixed in, or is handed the instance, lists its data or derived values: none is listed now",
        "Hand on what it needs, or leave the component as it is",
        "mixins: [Told], … told() { return contextOf(this); }   // return { ...vm.$data }",
    ),
    (
        "mixin-untyped",
        "note",
        "the types of the new form do not know what is mixed in where the template names it",
        "Turn the mixin into a function whose values the component names",
        'mixins: [Labels], …   // <template> {{ label }} </template>, with lang="ts"',
    ),
    (
        "made-at-start",
        "note",
        "what the making does with what is mixed in is done just before the first drawing; not on a server",
        "Turn the mixin into a function the component calls first",
        "mixins: [Telling], … created() { this.tell('berth', this); }   // Telling has tell()",
    ),
    (
        "mixin-order",
        "error",
        "the component and what it mixes in have the same hook: theirs ran first, and would run last",
        "Turn the mixin into a function the component calls first",
        "mixins: [Tracking], … mounted() {}   // Tracking has mounted() too",
    ),
    (
        "state-reads-state",
        "error",
        "the first state reads what is not there yet: it was undefined, and would be a value",
        "Write what it is (undefined) in its place first",
        "data() { return { open: this.start, wide: this.open }; }",
    ),
    (
        "mixin-hook-later",
        "note",
        "what is mixed in has the same hook: it ran before the component's own, and now runs after it",
        "Look whether one needs what the other does",
        "mixins: [Tracking], … mounted() {}   // Tracking has mounted() too",
    ),
    (
        "made-may-throw",
        "note",
        "where this fails for an input, the component was drawn all the same, and now is not",
        "Look whether the input may be missing",
        "created() { this.month = this.day.getMonth(); }",
    ),
    (
        "mixin-too-early",
        "error",
        "what is mixed in is used while the component is made, when the new form does not have it yet",
        "Turn the mixin into a function the component calls first",
        "mixins: [Labels], … data() { return { label: this.labelOf() }; }",
    ),
    (
        "made-throws",
        "error",
        "the code that makes the component throws: it was drawn all the same, and would not be",
        "Throw where the component is used, or draw nothing where it cannot be",
        "created() { if (!this.parent) throw new Error('alone'); }",
    ),
    (
        "members-closed",
        "note",
        "members of the component can no longer be reached from outside",
        "Expose what users reach by reference",
        "this.$refs.seats.change(1)",
    ),
)

RULES = table(_ROWS)
