# frozen_string_literal: true

# What a person does with mouse and keys that Capybara has no word for.
module Hand
  # Drags an element by so many pixels, in small moves as a hand makes them.
  #
  # @param held [Boolean] the button stays down
  def drag(selector, dx: 0, dy: 0, moves: 8, held: false)
    x, y = still(selector)
    mouse = page.driver.browser.mouse
    mouse.move(x:, y:)
    mouse.down
    (1..moves).each do |n|
      mouse.move(x: x + dx * n / moves.to_f, y: y + dy * n / moves.to_f)
      sleep 0.03
    end
    @at = [x + dx, y + dy]
    mouse.up unless held
  end

  # Waits until an element stays where it is: an answer on its way may still move it.
  #
  # @return [Array(Float, Float)] its middle
  def still(selector)
    middle = lambda do
      page.evaluate_script(<<~JS, find(selector))
        (() => { arguments[0].scrollIntoView({ block: 'nearest' }); const r = arguments[0].getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()
      JS
    end
    before = middle.call
    page.document.synchronize(10) do
      sleep 0.1
      last, before = before, middle.call
      raise Capybara::ElementNotFound, "#{selector} goes on moving" unless last == before

      before
    end
  end

  # Opens the Bench on the first frames of one clip of the demo, in a project of its own.
  #
  # @param file [String] below demo/media
  # @param encoding [String] assigned by hand
  # @return [Server::Cut]
  def open_bench(file, name:, encoding:, length:, width: 480, height: 270)
    folder = File.join(MEDIA, name.downcase)
    FileUtils.mkdir_p(folder)
    FileUtils.cp(File.join(Server::ROOT, "demo/media", file), folder)
    project = Server::Project.create!(name: "#{name} #{SecureRandom.hex(3)}", width:, height:)
    clip = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA))).call("#{name.downcase}/#{File.basename(file)}")
    clip.update!(encoding:, encoding_reason: "assigned by hand")
    cut = Server::Cut.create_named!(project, name)
    cut.add([{clip:, position: 0, source_in: 0, record_in: 0, length:}])
    visit "/projects/#{project.id}/cuts/#{cut.id}/bench"
    settle
    cut
  end

  # @yieldreturn [Boolean]
  def until_stored(words) = page.document.synchronize(20) { yield || raise(Capybara::ElementNotFound, "not stored: #{words}") }

  def press(*keys) = page.driver.browser.keyboard.type(*keys)

  # Does something by what it is called.
  def by_name(words)
    press([:control, "k"])
    find("[aria-label='what to do']").send_keys(words)
    expect(page).to have_css("[role=option]", text: /\A#{Regexp.escape(words)}/i)
    find("[aria-label='what to do']").send_keys(:enter)
    expect(page).to have_no_css("[aria-label='what to do']")
    sleep 0.2 # the focus goes back first
  end

  # Clicks a number and types another.
  def type_number(label, text)
    find("[role=spinbutton][aria-label='#{label}']").click
    find("input[aria-label='#{label}, typed']")
    press(text, :Enter)
  end

  def number(label) = find("[role=spinbutton][aria-label='#{label}']")["aria-valuenow"].to_f

  # Until the picture of the present state has arrived and is exact.
  def settle
    sleep 0.1 # for what the last key or move sets off
    expect(page).to have_css("[data-settled=true]")
  end

  SMALL = "const small = () => { const copy = new OffscreenCanvas(96, 54).getContext('2d', { willReadFrequently: true }); copy.imageSmoothingQuality = 'high'; copy.drawImage(document.querySelector('canvas[aria-label^=\"picture of shot\"]'), 0, 0, 96, 54); return [...copy.getImageData(0, 0, 96, 54).data] }"

  # The shown picture and what lies round it, reduced: numbers of 0..255.
  def small_picture = page.evaluate_script("(() => { #{SMALL}; return small() })()")

  # The same of the last one that was drawn by the browser itself on the way to the exact one.
  #
  # @yield what moves the hand
  def live_picture
    page.execute_script(<<~JS)
      #{SMALL}
      window.live = null
      const look = () => {
        const stage = document.querySelector('[data-size]')
        if (stage.dataset.size === 'live') window.live = small()
        if (!window.live || stage.dataset.settled !== 'true') requestAnimationFrame(look)
      }
      look()
    JS
    yield
    page.document.synchronize(20) { page.evaluate_script("window.live !== null && document.querySelector('[data-settled=true]') !== null") || raise(Capybara::ElementNotFound, "nothing was drawn live") }
    page.evaluate_script("window.live")
  end

  # Mean red, green and blue, 0..255, of a patch in the middle of the shown picture.
  def patch_mean
    page.evaluate_script(<<~JS)
      (() => {
        const canvas = document.querySelector('canvas[aria-label^="picture of shot"]')
        const copy = new OffscreenCanvas(16, 16).getContext('2d', { willReadFrequently: true })
        copy.drawImage(canvas, 8 - canvas.width / 2, 8 - canvas.height / 2)
        const data = copy.getImageData(0, 0, 16, 16).data
        const sum = [0, 0, 0]
        for (let i = 0; i < data.length; i += 4) for (let c = 0; c < 3; c++) sum[c] += data[i + c]
        return sum.map((x) => x / (data.length / 4))
      })()
    JS
  end
end
