/* What is said of people where something cannot be done. */

export const notHere = 'This person does not work here. Their access may have ended. Nothing was changed.'
export const lastOwner = 'This is the only owner of the studio: make somebody else an owner first. Nothing was changed.'
