import { createFileRoute } from '@tanstack/react-router'

export const Route = createFileRoute('/harbours')({ component: () => <p>Holm, Sandvar</p> })
