import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { loadEngine } from '../engine/engine'
import { arrangementQuery, lessonQuery, lessonsQuery, registerQuery, whoCouldJoinQuery } from '../lessons/data'
import { postureQuery, principlesQuery } from '../shared/material'
import { conventionsQuery } from '../shared/ways'

const DAYS = 14

/** Once the day has been looked at, the next two weeks of whoever looks are on their device: arrangements, registers, postures and the rules. One after the other, so that nothing else waits for it. */
export function useOnDevice(today: string | undefined) {
  const queries = useQueryClient()
  useEffect(() => {
    if (!today) return
    const left = { off: false }
    const later = setTimeout(() => void fetchAhead(queries, today, left).catch(() => undefined), 2500)
    return () => {
      clearTimeout(later)
      left.off = true
    }
  }, [queries, today])
}

async function fetchAhead(queries: QueryClient, today: string, left: { off: boolean }) {
  const last = new Date(Date.parse(today) + DAYS * 24 * 3600 * 1000).toISOString().slice(0, 10)
  const lessons = await queries.fetchQuery(lessonsQuery())
  await queries.fetchQuery(conventionsQuery())
  await queries.fetchQuery(principlesQuery())
  await queries.fetchQuery(loadEngine())
  const known = new Set<string>()
  for (const { classId, date } of lessons.filter((lesson) => lesson.date >= today && lesson.date <= last)) {
    if (left.off) return
    const lesson = { classId, date }
    await queries.fetchQuery(registerQuery(lesson))
    if (!(await queries.fetchQuery(lessonQuery(lesson))).planned) continue
    if (date === today) await queries.fetchQuery(whoCouldJoinQuery(lesson))
    const { blocks } = await queries.fetchQuery(arrangementQuery(lesson))
    for (const { material } of blocks) {
      const [of] = material
      if (left.off || !of || material.length > 1 || known.has(`${of.postureId} ${of.side}`)) continue
      known.add(`${of.postureId} ${of.side}`)
      await queries.fetchQuery(postureQuery(of.postureId, of.side))
    }
  }
}
