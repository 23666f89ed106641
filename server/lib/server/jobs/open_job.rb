# frozen_string_literal: true

module Server
  # Begins a stretch of an order: what ffmpeg can render alone is rendered so, the rest
  # is divided into parts.
  class OpenJob < Que::Job
    self.maximum_retry_count = 2

    def run(order_id, shot_id)
      @order = Order.fetch(order_id)
      @stretch = Stretch.new(@order, shot_id)
      return if @order.paused

      outputs = @order.outputs.where(shot_id:).reject(&:over?)
      outputs.each { |output| begin_with(output) if output.status == "waiting" }
      outputs.select { |output| output.status == "running" }.each { |output| alone(output) }
      Work.divide(@order, shot_id, @stretch.length) if outputs.any? { |output| output.reload.stage == "frames" }
      Work.conclude(@order, shot_id)
    rescue Mordant::Error, SystemCallError => e
      outputs&.each { |output| output.fail(Complaint.of(e)) unless output.reload.over? }
    end

    private

    def begin_with(output)
      writer = output.writer(@stretch)
      Mordant::Deliver::Naming.place(Settings.delivery, output.path) unless output.started_at
      writer.open
      output.update!(status: "running", stage: "frames", message: nil, started_at: Time.now)
    end

    # Renders an output in one go, where a lattice would not show.
    def alone(output)
      bulk = bulk(output.made_as) or return

      output.writer(@stretch).bulk(bulk, @stretch.length, timecode: @stretch.start, reel: @stretch.reel) { |done| report(output, done) }
      output.update!(stage: "ending", done: output.frames)
      Work.end_of(output)
    rescue FinishJob::Cancelled
      output.cancelled
    rescue Mordant::Error, SystemCallError => e
      output.fail(Complaint.of(e))
    end

    # @return [Mordant::Deliver::Bulk, nil] looked for once for outputs that show the same
    def bulk(sheet)
      shot = @stretch.alone
      return if sheet.format.sequence? || sheet.format.bits > 10 || !plain?(sheet) || shot.nil? || Part.of(@order, @stretch.shot&.id).exists? || Sound.any?(@stretch)

      @bulks ||= {}
      key = [sheet.variant, sheet.view, sheet.format.bits]
      @bulks.key?(key) ? @bulks[key] : @bulks[key] = look_for_bulk(sheet, shot)
    end

    def look_for_bulk(sheet, shot)
      project = @order.cut.project
      source = @stretch.source(@order.cut.shot(shot.key), [sheet.variant]).others.fetch(sheet.variant)
      made = Mordant::Deliver::Bulk.new(source:, output: project.output(sheet.view), bits: sheet.format.bits, first: shot.source_in, count: @stretch.length)
      made if made.fits?
    end

    # Nothing is drawn over it, its raster is the project's, and no light is measured.
    def plain?(sheet)
      project = @order.cut.project
      sheet.burns.empty? && sheet.mask.nil? && sheet.safe.empty? && [sheet.width, sheet.height] == [project.width, project.height] && !Mordant::Colour.encoding(sheet.view.encoding).absolute?
    end

    def report(output, done)
      output.reload
      raise FinishJob::Cancelled if output.cancelling

      output.update!(done: [done, output.frames].min)
    end
  end
end
