import { useQueryClient } from '@tanstack/react-query'
import { Suspense, useEffect, useMemo } from 'react'
import { Navigate, Route, Routes, useLocation } from 'react-router'
import { useSendingHappenings } from '../lessons/hall/sending'
import { useSendingMarks } from '../lessons/use-register'
import { useSendingPractice } from '../progress/use-practised'
import { fetched, later } from '../shared/fetched'
import { SignedIn, signedAs, useSession } from '../shared/session'
import { waiting } from '../shared/waiting'
import { TodayScreen } from '../today/TodayScreen'
import { Failure, Waiting } from '../ui/states'
import { Shell } from './Shell'

const SignInScreen = later(() => import('./SignInScreen').then((screen) => screen.SignInScreen))
const WelcomeScreen = later(() => import('./WelcomeScreen').then((screen) => screen.WelcomeScreen))
const SecureFirst = later(() => import('../school/SecureFirst').then((screen) => screen.SecureFirst))
const FormsScreen = later(() => import('../forms/FormsScreen').then((room) => room.FormsScreen))
const PosturesScreen = later(() => import('../forms/PosturesScreen').then((room) => room.PosturesScreen))
const PostureScreen = later(() => import('../forms/PostureScreen').then((room) => room.PostureScreen))
const PrinciplesScreen = later(() => import('../forms/PrinciplesScreen').then((room) => room.PrinciplesScreen))
const FilesScreen = later(() => import('../forms/FilesScreen').then((room) => room.FilesScreen))
const PeopleScreen = later(() => import('../people/PeopleScreen').then((room) => room.PeopleScreen))
const TermScreen = later(() => import('../terms/TermScreen').then((room) => room.TermScreen))
const YearScreen = later(() => import('../terms/YearScreen').then((room) => room.YearScreen))
const ShortStayScreen = later(() => import('../terms/ShortStayScreen').then((room) => room.ShortStayScreen))
const LessonsScreen = later(() => import('../lessons/LessonsScreen').then((room) => room.LessonsScreen))
const LessonScreen = later(() => import('../lessons/LessonScreen').then((room) => room.LessonScreen))
const MarkScreen = later(() => import('../lessons/MarkScreen').then((room) => room.MarkScreen))
const LookBackScreen = later(() => import('../lessons/LookBackScreen').then((room) => room.LookBackScreen))
const HallScreen = later(() => import('../lessons/hall/HallScreen').then((room) => room.HallScreen))
const ProgressScreen = later(() => import('../progress/ProgressScreen').then((room) => room.ProgressScreen))
const TakenOverScreen = later(() => import('../progress/TakenOverScreen').then((screen) => screen.TakenOverScreen))
const CorrectionsScreen = later(() =>
  import('../progress/CorrectionsScreen').then((screen) => screen.CorrectionsScreen),
)
const PatternsScreen = later(() => import('../progress/PatternsScreen').then((screen) => screen.PatternsScreen))
const NextSashScreen = later(() => import('../progress/NextSashScreen').then((screen) => screen.NextSashScreen))
const HomeScreen = later(() => import('../progress/HomeScreen').then((screen) => screen.HomeScreen))
const MovingInScreen = later(() => import('../today/MovingInScreen').then((screen) => screen.MovingInScreen))
const BeginScreen = later(() => import('./BeginScreen').then((screen) => screen.BeginScreen))
const SchoolScreen = later(() => import('../school/SchoolScreen').then((room) => room.SchoolScreen))

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
    if (known && person === null) void fetched(() => import('../shared/kept')).then(({ forget }) => forget())
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
