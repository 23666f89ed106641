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
      writer = output.writer
      Mordant::Deliver::Naming.place(Settings.delivery, output.path) unless output.started_at
      writer.open
      output.update!(status: "running", stage: "frames", message: nil, started_at: Time.now)
    end

    # Renders an output in one go, where a lattice would not show.
    def alone(output)
      bulk = bulk(output.made_as) or return

      output.writer.bulk(bulk, @stretch.length, timecode: @stretch.start, reel: @stretch.reel) { |done| report(output, done) }
      output.update!(stage: "ending", done: output.frames)
      Work.end_of(output)
    rescue FinishJob::Cancelled
      output.cancelled
    rescue Mordant::Error, SystemCallError => e
      output.fail(Complaint.of(e))
    end

    def bulk(sheet)
      project = @order.cut.project
      shot = @stretch.alone
      return if sheet.format.sequence? || sheet.format.bits > 10 || !plain?(sheet) || shot.nil? || Part.of(@order, @stretch.shot&.id).exists?
      return unless [sheet.width, sheet.height] == [project.width, project.height]

      source = @stretch.source(@order.cut.shot(shot.key), [sheet.variant]).others.fetch(sheet.variant)
      made = Mordant::Deliver::Bulk.new(source:, output: project.output(sheet.view), bits: sheet.format.bits, first: shot.source_in, count: @stretch.length)
      made if made.fits?
    end

    def plain?(sheet) = sheet.burns.empty? && sheet.mask.nil? && sheet.safe.empty? && !Mordant::Colour.encoding(sheet.view.encoding).absolute?

    def report(output, done)
      output.reload
      raise FinishJob::Cancelled if output.cancelling

      output.update!(done: [done, output.frames].min)
    end
  end
end
