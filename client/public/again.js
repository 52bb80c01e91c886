// Before anything else on the page: where a script it cannot do without broke off on the way, nothing stands there yet,
// and nothing is lost by opening it again.
addEventListener(
  'error',
  ({ target }) => {
    if (!(target instanceof HTMLScriptElement)) return
    const askAgain = () => setTimeout(ask, 2000)
    const ask = () => fetch(location.href).then(() => location.reload(), askAgain)
    askAgain()
  },
  true,
)
