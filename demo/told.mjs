// Everything a service tells of its tickets, but for what a clock changes: node told.mjs SERVICE NAME PASSWORD
const [service, name, password] = process.argv.slice(2)
const signedIn = await (await fetch(`${service}/api/sign-in`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ name, password }),
})).json()
const get = async path => (await fetch(`${service}/api/${path}`, { headers: { authorization: `Bearer ${signedIn.accessToken}` } })).json()

const { tickets } = await get('tickets?limit=200')
for (const line of tickets) {
  const { deadlines, rebuild, exposure, ...ticket } = await get(`tickets/${line.number}`) // these change with the clock
  if (ticket.run) delete ticket.run.unmet // a wait says how much of it is left
  console.log(JSON.stringify({ line, ticket }))
  for (let after = 0; after !== null; ) {
    const page = await get(`tickets/${line.number}/journal?after=${after}`)
    console.log(JSON.stringify(page))
    after = page.next
  }
}
