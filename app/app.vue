<template><div/></template>
