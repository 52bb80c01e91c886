import { useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useEffect, useMemo } from 'react'
import { Navigate, Route, Routes, useLocation } from 'react-router'
import { useSendingHappenings } from '../lessons/hall/sending'
import { useSendingMarks } from '../lessons/use-register'
import { useSendingPractice } from '../progress/use-practised'
import { SignedIn, signedAs, useSession } from '../shared/session'
import { waiting } from '../shared/waiting'
import { TodayScreen } from '../today/TodayScreen'
import { Failure, Waiting } from '../ui/states'
import { Shell } from './Shell'

const SignInScreen = lazy(() => import('./SignInScreen').then((screen) => ({ default: screen.SignInScreen })))
const WelcomeScreen = lazy(() => import('./WelcomeScreen').then((screen) => ({ default: screen.WelcomeScreen })))
const SecureFirst = lazy(() => import('../school/SecureFirst').then((screen) => ({ default: screen.SecureFirst })))
const FormsScreen = lazy(() => import('../forms/FormsScreen').then((room) => ({ default: room.FormsScreen })))
const PosturesScreen = lazy(() => import('../forms/PosturesScreen').then((room) => ({ default: room.PosturesScreen })))
const PostureScreen = lazy(() => import('../forms/PostureScreen').then((room) => ({ default: room.PostureScreen })))
const PrinciplesScreen = lazy(() =>
  import('../forms/PrinciplesScreen').then((room) => ({ default: room.PrinciplesScreen })),
)
const FilesScreen = lazy(() => import('../forms/FilesScreen').then((room) => ({ default: room.FilesScreen })))
const PeopleScreen = lazy(() => import('../people/PeopleScreen').then((room) => ({ default: room.PeopleScreen })))
const TermScreen = lazy(() => import('../terms/TermScreen').then((room) => ({ default: room.TermScreen })))
const YearScreen = lazy(() => import('../terms/YearScreen').then((room) => ({ default: room.YearScreen })))
const ShortStayScreen = lazy(() =>
  import('../terms/ShortStayScreen').then((room) => ({ default: room.ShortStayScreen })),
)
const LessonsScreen = lazy(() => import('../lessons/LessonsScreen').then((room) => ({ default: room.LessonsScreen })))
const LessonScreen = lazy(() => import('../lessons/LessonScreen').then((room) => ({ default: room.LessonScreen })))
const MarkScreen = lazy(() => import('../lessons/MarkScreen').then((room) => ({ default: room.MarkScreen })))
const LookBackScreen = lazy(() =>
  import('../lessons/LookBackScreen').then((room) => ({ default: room.LookBackScreen })),
)
const HallScreen = lazy(() => import('../lessons/hall/HallScreen').then((room) => ({ default: room.HallScreen })))
const ProgressScreen = lazy(() =>
  import('../progress/ProgressScreen').then((room) => ({ default: room.ProgressScreen })),
)
const TakenOverScreen = lazy(() =>
  import('../progress/TakenOverScreen').then((screen) => ({ default: screen.TakenOverScreen })),
)
const CorrectionsScreen = lazy(() =>
  import('../progress/CorrectionsScreen').then((screen) => ({ default: screen.CorrectionsScreen })),
)
const PatternsScreen = lazy(() =>
  import('../progress/PatternsScreen').then((screen) => ({ default: screen.PatternsScreen })),
)
const NextSashScreen = lazy(() =>
  import('../progress/NextSashScreen').then((screen) => ({ default: screen.NextSashScreen })),
)
const HomeScreen = lazy(() => import('../progress/HomeScreen').then((screen) => ({ default: screen.HomeScreen })))
const MovingInScreen = lazy(() =>
  import('../today/MovingInScreen').then((screen) => ({ default: screen.MovingInScreen })),
)
const BeginScreen = lazy(() => import('./BeginScreen').then((screen) => ({ default: screen.BeginScreen })))
const SchoolScreen = lazy(() => import('../school/SchoolScreen').then((room) => ({ default: room.SchoolScreen })))

/** Everybody's way in: who is not signed in sees the sign-in at whatever address they came to, and goes on there. */
export function App() {
  const session = useSession()
  const { pathname } = useLocation()
  const queries = useQueryClient()
  const signed = useMemo(() => session.data?.person && signedAs(session.data, session.data.person), [session.data])
  const person = signed?.person.id ?? null
  const known = session.data !== undefined
  useSendingMarks()
  useSendingHappenings()
  useSendingPractice()
  useEffect(() => {
    void waiting.signedIn(person)
    // Nobody sees what the person before them has read, on this page or on this device.
    if (known && person === null) void import('../shared/kept').then(({ forget }) => forget())
    if (person === null)
      queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'session' && queryKey[0] !== 'engine' })
  }, [known, person, queries])
  if (!session.data)
    return session.isError ? (
      <Failure error={session.error} retry={() => void session.refetch()} />
    ) : (
      <Waiting what="Opening the school" />
    )
  if (pathname === '/welcome')
    return (
      <Suspense fallback={null}>
        <WelcomeScreen school={session.data.schoolName} />
      </Suspense>
    )
  if (!signed)
    return (
      <Suspense fallback={null}>
        <SignInScreen
          school={session.data.schoolName}
          isDemo={session.data.isDemo}
          mails={session.data.mailsPasswords}
        />
      </Suspense>
    )
  if (signed.mustSecure)
    return (
      <SignedIn value={signed}>
        <Suspense fallback={<Waiting what="Opening" />}>
          <SecureFirst />
        </Suspense>
      </SignedIn>
    )
  if (/^\/lessons\/[^/]+\/[^/]+\/hall$/.test(pathname))
    return (
      <SignedIn value={signed}>
        <Suspense fallback={<Waiting what="Opening the hall" />}>
          <Routes>
            <Route path="/lessons/:classId/:date/hall" element={<HallScreen />} />
          </Routes>
        </Suspense>
      </SignedIn>
    )
  return (
    <SignedIn value={signed}>
      <Shell>
        <Suspense fallback={<Waiting what="Opening" />}>
          <Routes>
            <Route path="/" element={<TodayScreen />} />
            <Route path="/forms/postures" element={<PosturesScreen />} />
            <Route path="/forms/postures/:postureId" element={<PostureScreen />} />
            <Route path="/forms/principles" element={<PrinciplesScreen />} />
            <Route path="/forms/files" element={<FilesScreen />} />
            <Route path="/forms/:formId?" element={<FormsScreen />} />
            <Route path="/people" element={<PeopleScreen />} />
            <Route path="/term/short-stay" element={<ShortStayScreen />} />
            <Route path="/term/:classId/year" element={<YearScreen />} />
            <Route path="/term/:classId?" element={<TermScreen />} />
            <Route path="/lessons" element={<LessonsScreen />} />
            <Route path="/lessons/:classId/:date" element={<LessonScreen />} />
            <Route path="/lessons/:classId/:date/mark" element={<MarkScreen />} />
            <Route path="/lessons/:classId/:date/back" element={<LookBackScreen />} />
            <Route path="/progress/taken-over/:cohortId?" element={<TakenOverScreen />} />
            <Route path="/progress/:classId/corrections" element={<CorrectionsScreen />} />
            <Route path="/progress/patterns" element={<PatternsScreen />} />
            <Route path="/progress/:classId/home" element={<HomeScreen />} />
            <Route path="/progress/:classId/next-sash" element={<NextSashScreen />} />
            <Route path="/progress/:classId?" element={<ProgressScreen />} />
            <Route path="/moving-in" element={<MovingInScreen />} />
            {signed.mayBegin && <Route path="/begin" element={<BeginScreen />} />}
            <Route path="/school" element={<SchoolScreen />} />
            <Route path="*" element={<Navigate to="/" replace />} />
          </Routes>
        </Suspense>
      </Shell>
    </SignedIn>
  )
}
