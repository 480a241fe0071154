import { Component, signal } from '@angular/core'
import { bootstrapApplication } from '@angular/platform-browser'
import { provideRouter, RouterLink, RouterOutlet } from '@angular/router'
import { environment } from './environment'

@Component({ selector: 'app-home', template: '<p>{{ count() }} sailings</p>' })
class Home {
  count = signal(0)

  constructor() {
    fetch(`${environment.sailingsApi}/v1/sailings`)
      .then((answer) => answer.json())
      .then((list) => this.count.set(list.length))
  }
}

@Component({
  selector: 'app-root',
  imports: [RouterOutlet, RouterLink],
  template: '<a routerLink="/harbours">Harbours</a><img src="mark.svg" alt=""><router-outlet />',
})
class App {}

bootstrapApplication(App, {
  providers: [
    provideRouter([
      { path: '', component: Home },
      { path: 'harbours', loadComponent: () => import('./harbours').then((found) => found.Harbours) },
    ]),
  ],
})
