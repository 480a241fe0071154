export const live = () => new WebSocket('ws://localhost:8810/live')
