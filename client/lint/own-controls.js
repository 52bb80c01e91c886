/** What src/ui has is not made again beside it: elsewhere such an element would behave unlike everything else here. */
const elements = new Set(['select', 'details', 'summary', 'progress', 'dialog'])
const inputs = new Set(['checkbox', 'radio', 'range'])

const ownControls = {
  create: (context) => ({
    JSXOpeningElement(node) {
      const type = node.attributes.find((attribute) => attribute.name?.name === 'type')?.value?.value
      if (elements.has(node.name.name) || (node.name.name === 'input' && inputs.has(type)))
        context.report({ node, message: 'src/ui has it, with the behaviour everything else here has.' })
    },
  }),
}

export default { meta: { name: 'zeitplan' }, rules: { 'own-controls': ownControls } }
