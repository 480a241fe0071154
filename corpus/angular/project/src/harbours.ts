import { Component } from '@angular/core'

@Component({ selector: 'app-harbours', template: '<p>Holm, Sandvar</p>' })
export class Harbours {}
