export const Sailing = ({ from, to }) => <p>{`${from} to ${to}`}</p>
