import { index, route } from '@react-router/dev/routes'

export default [index('home.jsx'), route('harbours', 'harbours.jsx')]
