/** Schools that are open, each on a database of its own: "database=address", one for each worker. */
export const schools = (process.env.ZEITPLAN_SCHOOLS ?? '')
  .split(' ')
  .filter(Boolean)
  .map((school) => {
    const [database, address] = school.split('=')
    return { database: database!, address: address! }
  })
