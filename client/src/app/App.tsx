import { lazy, Suspense } from 'react'
import { Navigate, Route, Routes } from 'react-router'
import { LessonScreen } from '../lessons/LessonScreen'
import { LessonsScreen } from '../lessons/LessonsScreen'
import { ProgressScreen } from '../progress/ProgressScreen'
import { SchoolScreen } from '../school/SchoolScreen'
import { TermScreen } from '../terms/TermScreen'
import { TodayScreen } from '../today/TodayScreen'
import { Failure, Waiting } from '../ui/states'
import { useSession } from './session'
import { Shell } from './Shell'
import { SignInScreen } from './SignInScreen'

const FormsScreen = lazy(() => import('../forms/FormsScreen').then((module) => ({ default: module.FormsScreen })))
const PosturesScreen = lazy(() =>
  import('../forms/PosturesScreen').then((module) => ({ default: module.PosturesScreen })),
)
const PostureScreen = lazy(() => import('../forms/PostureScreen').then((module) => ({ default: module.PostureScreen })))
const PrinciplesScreen = lazy(() =>
  import('../forms/PrinciplesScreen').then((module) => ({ default: module.PrinciplesScreen })),
)
const FilesScreen = lazy(() => import('../forms/FilesScreen').then((module) => ({ default: module.FilesScreen })))
const PeopleScreen = lazy(() => import('../people/PeopleScreen').then((module) => ({ default: module.PeopleScreen })))
const YearScreen = lazy(() => import('../terms/YearScreen').then((module) => ({ default: module.YearScreen })))
const ShortStayScreen = lazy(() =>
  import('../terms/ShortStayScreen').then((module) => ({ default: module.ShortStayScreen })),
)
const MarkScreen = lazy(() => import('../lessons/MarkScreen').then((module) => ({ default: module.MarkScreen })))

export function App() {
  const session = useSession()
  if (session.isPending) return <Waiting what="Opening the school" />
  if (session.isError) return <Failure error={session.error} retry={() => void session.refetch()} />
  if (!session.data.person) return <SignInScreen school={session.data.schoolName} isDemo={session.data.isDemo} />
  return (
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
          <Route path="/progress/:classId?" element={<ProgressScreen />} />
          <Route path="/school" element={<SchoolScreen />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
    </Shell>
  )
}
