<?php

use App\Http\Controllers\ArrivalController;
use Illuminate\Support\Facades\Route;

Route::get('/arrivals/{quay}', [ArrivalController::class, 'index'])->name('arrivals');
