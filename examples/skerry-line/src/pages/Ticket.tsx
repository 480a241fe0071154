import { type FormEvent, useState } from 'react'
import { book } from '../api.ts'
import { nameOf, printed } from '../timetable.ts'

export function Ticket() {
  const [said, setSaid] = useState('')
  const send = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault()
    const form = new FormData(event.currentTarget)
    book(String(form.get('sailing')), Number(form.get('places')))
      .then(() => setSaid('Booked. See you at the quay.'))
      .catch(() => setSaid('The ticket office does not answer. Please try again later.'))
  }
  return (
    <form onSubmit={send}>
      <h1>A ticket</h1>
      <label>
        Sailing
        <select name="sailing">
          {printed.map((sailing) => (
            <option key={sailing.id} value={sailing.id}>
              {sailing.leaves} {nameOf(sailing.from)} to {nameOf(sailing.to)}
            </option>
          ))}
        </select>
      </label>
      <label>
        Places
        <input name="places" type="number" min="1" max="8" defaultValue="1" />
      </label>
      <button type="submit" className="button">
        Book
      </button>
      <p role="status">{said}</p>
    </form>
  )
}
